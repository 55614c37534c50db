/** The least box in which some nodes lie; turned inside out where there are none. */
export interface Bounds {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

export function boundsOf(nodes: Iterable<number>, x: ArrayLike<number>, y: ArrayLike<number>): Bounds {
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const v of nodes) {
    left = Math.min(left, x[v]);
    right = Math.max(right, x[v]);
    top = Math.min(top, y[v]);
    bottom = Math.max(bottom, y[v]);
  }
  return { left, right, top, bottom };
}
