import type { SmallPicture } from '@pebble/contract';
import { boundsOf, type Bounds } from './bounds';
import type { PreparedMap } from './prepare';

/** Nodes that a small picture has at most; more cannot be told apart in it. */
const MOST = 2500;
/** Places are whole numbers up to this. */
const SIDE = 1000;

/**
 * A map made small: the places of its nodes, the larger ones where there are very many, in a box as wide as high, with their sizes and colours.
 * @param x of each node of the network, as `y`
 * @param part of the map, in its units; the whole where it is left out
 */
export function smallPicture(
  { nodes, radius, paintOrder, colour, colours }: PreparedMap,
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  part?: Bounds,
): SmallPicture {
  // They are painted from the largest to the smallest; the order stays.
  const within = part ? paintOrder.filter((v) => isWithin(part, x[v], y[v])) : paintOrder;
  const shown = within.length > MOST ? within.subarray(0, MOST) : within;
  const { left, right, top, bottom } = part ?? boundsOf(nodes, x, y);
  const [width, height] = [Math.max(right - left, 1), Math.max(bottom - top, 1)];
  const scale = SIDE / Math.max(width, height);
  return {
    width: Math.round(width * scale),
    height: Math.round(height * scale),
    colours: [...colours],
    x: Array.from(shown, (v) => Math.round((x[v] - left) * scale)),
    y: Array.from(shown, (v) => Math.round((y[v] - top) * scale)),
    radius: Array.from(shown, (v) => +(radius[v] * scale).toFixed(2)),
    colour: Array.from(shown, (v) => colour[v]),
  };
}

function isWithin({ left, right, top, bottom }: Bounds, x: number, y: number): boolean {
  return x >= left && x <= right && y >= top && y <= bottom;
}
