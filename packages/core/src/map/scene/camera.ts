import type { Margin, Size, View } from './view';

/** The view that shows all of a map, and the point of the screen round which it does. */
export interface FittedView {
  readonly view: View;
  readonly middle: { readonly x: number; readonly y: number };
}

/** The middle of what is free of a picture. */
export function middleOfFree(size: Size, margin: Margin): FittedView['middle'] {
  return {
    x: (margin.left + size.width - margin.right) / 2,
    y: (margin.top + size.height - margin.bottom) / 2,
  };
}

/**
 * The view of a second map that moves with a first one: when the first shows all so does the second, and both are zoomed alike.
 * @param samePlaces whether the same place means the same in both: then the same place is in the middle of both
 */
export function viewBeside(view: View, first: FittedView, second: FittedView, samePlaces: boolean): View {
  const scale = (second.view.scale * view.scale) / first.view.scale;
  const ratio = samePlaces ? 1 : first.view.scale / second.view.scale;
  const along = (axis: 'x' | 'y'): number => {
    const moved = inMiddle(view, first.middle, axis) - inMiddle(first.view, first.middle, axis);
    return second.middle[axis] - scale * (inMiddle(second.view, second.middle, axis) + ratio * moved);
  };
  return { scale, x: along('x'), y: along('y') };
}

/** What place of a map a view has in the middle. */
function inMiddle(view: View, middle: FittedView['middle'], axis: 'x' | 'y'): number {
  return (middle[axis] - view[axis]) / view.scale;
}
