import type { LegendCorner } from '@pebble/contract';

/** Where the map stands on the screen: screen = scale x world + (x, y), in pixels. */
export interface View {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** Space kept free at the edges of the picture. */
export interface Margin {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** On the left stands the legend. */
export const MARGIN: Margin = { left: 208, right: 30, top: 26, bottom: 56 };

/** The margin with its wide side where the legend stands. */
export function marginFor(
  corner: LegendCorner,
  { top, bottom }: Pick<Margin, 'top' | 'bottom'> = MARGIN,
): Margin {
  const { left, right } = MARGIN;
  return corner.endsWith('left') ? { left, right, top, bottom } : { left: right, right: left, top, bottom };
}

/** The view that shows all given nodes in the middle of the picture, at most at scale 1.6. */
export function fitView(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  radius: ArrayLike<number>,
  nodes: Iterable<number>,
  size: Size,
  margin: Margin = MARGIN,
): View {
  let left = Infinity;
  let right = -Infinity;
  let top = Infinity;
  let bottom = -Infinity;
  for (const v of nodes) {
    left = Math.min(left, x[v] - radius[v]);
    right = Math.max(right, x[v] + radius[v]);
    top = Math.min(top, y[v] - radius[v]);
    bottom = Math.max(bottom, y[v] + radius[v]);
  }
  if (left > right) return { scale: 1, x: size.width / 2, y: size.height / 2 };
  const width = Math.max(40, size.width - margin.left - margin.right);
  const height = Math.max(40, size.height - margin.top - margin.bottom);
  const scale = Math.min(width / Math.max(right - left, 1), height / Math.max(bottom - top, 1), 1.6);
  return {
    scale,
    x: margin.left + width / 2 - (scale * (left + right)) / 2,
    y: margin.top + height / 2 - (scale * (top + bottom)) / 2,
  };
}

/** Nodes grow with the map up to scale 1, and more slowly beyond it, so that zooming in parts them. */
export function nodeScale(scale: number): number {
  return scale <= 1 ? scale : Math.sqrt(scale);
}

/** The same part of a map on a screen or a picture of another size: all that was seen is seen, in the middle. */
export function seenOn({ width, height }: Size, seen: View & Size): View {
  const by = Math.min(width / seen.width, height / seen.height);
  return {
    scale: seen.scale * by,
    x: width / 2 + (seen.x - seen.width / 2) * by,
    y: height / 2 + (seen.y - seen.height / 2) * by,
  };
}
