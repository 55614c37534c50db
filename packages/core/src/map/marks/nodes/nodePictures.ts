import { NodeShape } from '@pebble/contract';
import type { PreparedMap } from '../../scene/prepare';
import type { NodePictureMark } from '../../scene/scene';
import type { ScreenNodes } from '../../scene/screenNodes';

/** A node that is smaller on the screen, in pixels, shows its colour alone: its picture could not be made out. */
const SMALLEST = 3;
/** So much of a node its picture takes; the rest stays as a rim in its colour. */
const INSIDE = 0.84;

/** The pictures inside of nodes that are large enough, in the shape of the node. */
export function buildPictures(
  nodes: Iterable<number>,
  { pictures, shape }: PreparedMap,
  { x, y, radius }: ScreenNodes,
): NodePictureMark[] {
  if (!pictures) return [];
  const marks: NodePictureMark[] = [];
  for (const v of nodes) {
    const image = pictures.get(v);
    if (image === undefined || radius[v] < SMALLEST) continue;
    marks.push({
      image,
      x: x[v],
      y: y[v],
      radius: radius[v] * INSIDE,
      shape: NodeShape.options[shape?.[v] ?? 0],
    });
  }
  return marks;
}
