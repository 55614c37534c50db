import { Random } from '../../../../random';
import { areAlike, measured, type Chords, type MeasuredChords } from './compatibility';

/** A line is drawn to so many others at most; of more, each is as likely to be taken. */
export const MOST_MATES = 48;
/** At 2.74 times the length the measure of lengths alone falls below what is alike. */
const LONGEST_ALIKE = 2.75;
/** Lines that are looked at before other work may be done. */
const AT_ONCE = 200;

/** Of each line those that it is drawn to: line p has `of[p * MOST_MATES]` and the next, `count[p]` in all. */
export interface CompatibleEdges {
  readonly of: Uint32Array;
  readonly count: Uint8Array;
  /** How many it would have. */
  readonly alike: Uint32Array;
}

/**
 * Which lines are alike, by looking at every pair of them once. Of many mates a sample is kept (Vitter 1985, ACM Trans. Math. Softw. 11),
 * so that a bundle of thousands costs no more for each line than one of dozens. Tells in between how far it is, 0 to 1.
 */
export function* matesOf(chords: Chords, seed = 1): Generator<number, CompatibleEdges> {
  const lines = chords.ax.length;
  const random = new Random(seed);
  const of = new Uint32Array(lines * MOST_MATES);
  const count = new Uint8Array(lines);
  const alike = new Uint32Array(lines);
  const take = (p: number, q: number): void => {
    alike[p]++;
    if (count[p] < MOST_MATES) of[p * MOST_MATES + count[p]++] = q;
    else {
      const place = random.below(alike[p]);
      if (place < MOST_MATES) of[p * MOST_MATES + place] = q;
    }
  };
  // By length, since lines of very different lengths are never alike.
  const { length } = measured(chords);
  const sorted = Uint32Array.from(length, (_, i) => i).sort((a, b) => length[a] - length[b] || a - b);
  const inOrder = (values: Float64Array): Float64Array => Float64Array.from(sorted, (i) => values[i]);
  const { ax, ay, bx, by } = chords;
  const ordered = measured({ ax: inOrder(ax), ay: inOrder(ay), bx: inOrder(bx), by: inOrder(by) });
  for (let i = 0; i < lines; i++) {
    for (const j of alikeAfter(ordered, i)) {
      take(sorted[i], sorted[j]);
      take(sorted[j], sorted[i]);
    }
    if (i % AT_ONCE === AT_ONCE - 1) yield i / lines;
  }
  return { of, count, alike };
}

/** Longer lines than line i that are alike; the lines are sorted by length. */
function alikeAfter(ordered: MeasuredChords, i: number): number[] {
  const found: number[] = [];
  const { length } = ordered;
  const bound = length[i] * LONGEST_ALIKE;
  for (let j = i + 1; j < length.length && length[j] <= bound; j++)
    if (areAlike(ordered, i, j)) found.push(j);
  return found;
}
