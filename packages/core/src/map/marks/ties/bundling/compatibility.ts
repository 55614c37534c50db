/** Ties as straight lines, by their place in a list. */
export interface Chords {
  readonly ax: Float64Array;
  readonly ay: Float64Array;
  readonly bx: Float64Array;
  readonly by: Float64Array;
}

/** Two lines count as alike from this product of the four measures on. */
export const ALIKE = 0.6;

/** What is asked again and again of each line. */
export interface MeasuredChords extends Chords {
  /** Length of each line, and the direction of length 1 from its beginning to its end; no line is a point. */
  readonly length: Float64Array;
  readonly ux: Float64Array;
  readonly uy: Float64Array;
  /** The middle of each line. */
  readonly mx: Float64Array;
  readonly my: Float64Array;
}

export function measured({ ax, ay, bx, by }: Chords): MeasuredChords {
  const length = ax.map((x, i) => Math.sqrt((bx[i] - x) * (bx[i] - x) + (by[i] - ay[i]) * (by[i] - ay[i])));
  return {
    ax,
    ay,
    bx,
    by,
    length,
    ux: ax.map((x, i) => (bx[i] - x) / length[i]),
    uy: ay.map((y, i) => (by[i] - y) / length[i]),
    mx: ax.map((x, i) => (x + bx[i]) / 2),
    my: ay.map((y, i) => (y + by[i]) / 2),
  };
}

/** How far two lines run the same way, 0 to 1: the cosine between them, whichever end is called the first. */
export function sameAngle({ ux, uy }: MeasuredChords, p: number, q: number): number {
  return Math.abs(ux[p] * ux[q] + uy[p] * uy[q]);
}

/** How alike two lengths are, 0 to 1. */
export function sameScale({ length }: MeasuredChords, p: number, q: number): number {
  const mean = (length[p] + length[q]) / 2;
  return 2 / (mean / Math.min(length[p], length[q]) + Math.max(length[p], length[q]) / mean);
}

/** How near two middles are beside the lengths, 0 to 1. */
export function samePlace({ mx, my, length }: MeasuredChords, p: number, q: number): number {
  const mean = (length[p] + length[q]) / 2;
  const dx = mx[p] - mx[q];
  const dy = my[p] - my[q];
  return mean / (mean + Math.sqrt(dx * dx + dy * dy));
}

/** How well each line is seen from the other, 0 to 1: opposite sides of a flat parallelogram do not see each other. */
export function sameView(chords: MeasuredChords, p: number, q: number): number {
  return Math.min(seen(chords, p, q), seen(chords, q, p));
}

/** How near the middle of a line lies to the middle of that part of it onto which `q` falls at right angles. */
function seen({ ax, ay, bx, by, length, ux, uy }: MeasuredChords, p: number, q: number): number {
  // Along line p, from its beginning: where the ends of q fall on it.
  const from = (ax[q] - ax[p]) * ux[p] + (ay[q] - ay[p]) * uy[p];
  const until = (bx[q] - ax[p]) * ux[p] + (by[q] - ay[p]) * uy[p];
  const wide = Math.abs(until - from);
  if (wide === 0) return 0;
  return Math.max(0, 1 - (2 * Math.abs(length[p] / 2 - (from + until) / 2)) / wide);
}

/**
 * How well two lines can be drawn together, 0 to 1: the product of the four measures of Holten & van Wijk (2009), Force-directed edge
 * bundling for graph visualization, Computer Graphics Forum 28.
 */
export function compatibility(chords: MeasuredChords, p: number, q: number): number {
  return sameAngle(chords, p, q) * sameScale(chords, p, q) * samePlace(chords, p, q) * sameView(chords, p, q);
}

/** Whether two lines are alike; what is quickly asked is asked first. */
export function areAlike(chords: MeasuredChords, p: number, q: number): boolean {
  const { ux, uy, mx, my, length } = chords;
  const angle = Math.abs(ux[p] * ux[q] + uy[p] * uy[q]);
  if (angle < ALIKE) return false;
  // Farther off the measures of angle and place alone are too low together.
  const reach = ((length[p] + length[q]) / 2) * (angle / ALIKE - 1);
  const dx = mx[p] - mx[q];
  const dy = my[p] - my[q];
  return dx * dx + dy * dy <= reach * reach && compatibility(chords, p, q) >= ALIKE;
}
