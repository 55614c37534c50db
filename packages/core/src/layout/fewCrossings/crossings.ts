import type { Random } from '../../random';

/** Ends of ties as places of nodes. */
export interface Ties {
  readonly source: ArrayLike<number>;
  readonly target: ArrayLike<number>;
}

/** Whether two straight ties cross between their ends; those with an end in common do not. */
export function doCross(
  { source, target }: Ties,
  e: number,
  f: number,
  x: ArrayLike<number>,
  y: ArrayLike<number>,
): boolean {
  const [a, b, c, d] = [source[e], target[e], source[f], target[f]];
  if (a === c || a === d || b === c || b === d) return false;
  const side = (p: number, q: number, r: number): number =>
    (x[q] - x[p]) * (y[r] - y[p]) - (y[q] - y[p]) * (x[r] - x[p]);
  return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
}

/** Pairs of ties that cross, drawn straight. Time O(ties squared). */
export function countCrossings(ties: Ties, x: ArrayLike<number>, y: ArrayLike<number>): number {
  const m = ties.source.length;
  let count = 0;
  for (let e = 0; e < m; e++) for (let f = e + 1; f < m; f++) if (doCross(ties, e, f, x, y)) count++;
  return count;
}

/** The same, estimated from so many pairs of ties by chance. */
export function estimateCrossings(
  ties: Ties,
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  pairs: number,
  chance: Random,
): number {
  const m = ties.source.length;
  if (m < 2) return 0;
  let count = 0;
  for (let i = 0; i < pairs; i++) {
    const e = chance.below(m);
    const f = (e + 1 + chance.below(m - 1)) % m;
    if (doCross(ties, e, f, x, y)) count++;
  }
  return Math.round((count / pairs) * ((m * (m - 1)) / 2));
}

/**
 * Crossings of ties between two columns, by the places of their ends (Barth, Jünger & Mutzel 2002: inversions, counted by a tree of sums).
 * @param left, right place of either end of each tie in its column
 */
export function columnCrossings(left: ArrayLike<number>, right: ArrayLike<number>): number {
  const order = Array.from({ length: left.length }, (_, e) => e).sort(
    (e, f) => left[e] - left[f] || right[e] - right[f],
  );
  let most = 0;
  for (const place of Array.from(right)) most = Math.max(most, place);
  const sums = new Uint32Array(most + 2);
  let crossings = 0;
  order.forEach((e, before) => {
    let notAbove = 0;
    for (let i = right[e] + 1; i > 0; i -= i & -i) notAbove += sums[i];
    crossings += before - notAbove;
    for (let i = right[e] + 1; i < sums.length; i += i & -i) sums[i]++;
  });
  return crossings;
}

/** Crossings of ties drawn as chords of a circle, by the places of their ends on it. */
export function chordCrossings(ties: Ties, place: ArrayLike<number>, most = Infinity): number {
  const m = ties.source.length;
  const low = Array.from({ length: m }, (_, e) => Math.min(place[ties.source[e]], place[ties.target[e]]));
  const high = Array.from({ length: m }, (_, e) => Math.max(place[ties.source[e]], place[ties.target[e]]));
  const order = Array.from({ length: m }, (_, e) => e).sort((e, f) => low[e] - low[f]);
  let count = 0;
  for (let i = 0; i < m; i++) {
    const e = order[i];
    for (let j = i + 1; j < m && low[order[j]] < high[e]; j++) {
      const f = order[j];
      if (low[f] > low[e] && high[f] > high[e]) count++;
    }
    if (count > most) return count;
  }
  return count;
}
