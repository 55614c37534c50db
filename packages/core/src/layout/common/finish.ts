import { removeOverlaps } from './overlaps';

export const NODE_GAP = 2;

/** Removes overlaps; where nodes are too crowded for it, spreads all a little and tries again. */
export function makeRoom(x: Float64Array, y: Float64Array, size: Float64Array): number {
  for (let tries = 0; ; tries++) {
    const left = removeOverlaps(x, y, size, NODE_GAP, 60);
    if (left === 0 || tries === 8) return left;
    for (let i = 0; i < x.length; i++) {
      x[i] *= 1.06;
      y[i] *= 1.06;
    }
  }
}

export function centre(x: Float64Array, y: Float64Array): void {
  const { left, top, width, height } = span(x, y);
  for (let i = 0; i < x.length; i++) {
    x[i] -= left + width / 2;
    y[i] -= top + height / 2;
  }
}

export function turn(x: Float64Array, y: Float64Array): void {
  for (let i = 0; i < x.length; i++) [x[i], y[i]] = [y[i], -x[i]];
}

export function span(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
): { left: number; top: number; width: number; height: number } {
  let left = Infinity;
  let right = -Infinity;
  let top = Infinity;
  let bottom = -Infinity;
  for (let i = 0; i < x.length; i++) {
    left = Math.min(left, x[i]);
    right = Math.max(right, x[i]);
    top = Math.min(top, y[i]);
    bottom = Math.max(bottom, y[i]);
  }
  return { left, top, width: right - left, height: bottom - top };
}

/** Sets the isolates in rows under the rest, as wide as the rest, in the order of their numbers. */
export function parkBelow(
  isolates: readonly number[],
  x: Float64Array,
  y: Float64Array,
  radius: ArrayLike<number>,
  rest: readonly number[],
): void {
  if (isolates.length === 0) return;
  let largest = 0;
  for (const v of isolates) largest = Math.max(largest, radius[v]);
  const pitch = 2 * largest + NODE_GAP + 2;
  const box = rest.length
    ? span(
        rest.map((v) => x[v]),
        rest.map((v) => y[v]),
      )
    : { left: 0, top: 0, width: pitch * Math.sqrt(isolates.length * 2), height: 0 };
  const columns = Math.max(1, Math.min(isolates.length, Math.floor(box.width / pitch) + 1));
  const left = box.left + box.width / 2 - ((columns - 1) * pitch) / 2;
  const top = rest.length ? box.top + box.height + 44 : 0;
  isolates.forEach((v, i) => {
    x[v] = left + (i % columns) * pitch;
    y[v] = top + Math.floor(i / columns) * pitch;
  });
}
