import type { MapDescription } from '@pebble/contract';
import type { Grip } from '../scene/scene';
import type { View } from '../scene/view';

interface Where {
  readonly places: { readonly x: ArrayLike<number>; readonly y: ArrayLike<number> };
  readonly view: View;
}

/**
 * The description of a map in which a name or a note was moved.
 * @param dx how far to the right on the screen, in pixels
 * @param dy how far down
 */
export function moveGrip(
  description: MapDescription,
  grip: Grip,
  dx: number,
  dy: number,
  { places, view }: Where,
): MapDescription {
  if (grip.what === 'note') {
    const notes = description.notes.map((note, i) =>
      i === grip.of ? { ...note, dx: note.dx + dx / view.scale, dy: note.dy + dy / view.scale } : note,
    );
    return { ...description, notes };
  }
  const { names } = description;
  const node = grip.of;
  const placed = {
    node,
    dx: (grip.left + grip.width / 2 + dx - view.x) / view.scale - places.x[node],
    dy: (grip.top + grip.height / 2 + dy - view.y) / view.scale - places.y[node],
  };
  const others = names.placed.filter((one) => one.node !== node);
  return { ...description, names: { ...names, placed: [...others, placed] } };
}
