/** A part of a whole in each of several slices. */
export interface OverTime {
  readonly counts: ArrayLike<number>;
  readonly totals: ArrayLike<number>;
}

/** Fewer of something in all say nothing of a trend, nor fewer to be expected in either half of the slices. */
export const LEAST_FOR_TREND = 10;
const LEAST_EXPECTED = 5;

/**
 * How clearly a share rises (above 0) or falls (below 0) over slices, in standard deviations: the test of Cochran (1954, Biometrics 10(4)) and
 * Armitage (1955, Biometrics 11(3)). NaN where nothing can be told: too few, all or none of the whole.
 * @param scores places of the slices in time; without them 0, 1, 2, …
 */
export function trendOf({ counts, totals }: OverTime, scores?: ArrayLike<number>): number {
  let [all, of, moment, square, lean] = [0, 0, 0, 0, 0];
  const at = (i: number): number => scores?.[i] ?? i;
  for (let i = 0; i < totals.length; i++) {
    all += totals[i];
    of += counts[i];
    moment += totals[i] * at(i);
    square += totals[i] * at(i) * at(i);
  }
  const share = of / all;
  for (let i = 0; i < totals.length; i++) lean += at(i) * (counts[i] - totals[i] * share);
  const variance = share * (1 - share) * (square - (moment * moment) / all);
  return variance > 0 ? lean / Math.sqrt(variance) : NaN;
}

/** Whether there is enough of something for a trend: ten in all, and five expected in the earlier and in the later half of the slices. */
export function isEnough(over: OverTime): boolean {
  const { counts, totals } = over;
  const all = sumOf(totals, 0, totals.length);
  const of = sumOf(counts, 0, totals.length);
  return (
    of >= LEAST_FOR_TREND &&
    halves(over).every(([from, until]) => (sumOf(totals, from, until) * of) / all >= LEAST_EXPECTED)
  );
}

/**
 * How often a value so far from 0, or farther, comes by chance from a normal distribution, on either side. By the Chebyshev fit of Press et al.
 * (Numerical Recipes, 2nd edition, 6.2), with a relative error below 1.2e-7.
 */
export function byChance(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.5 * x);
  let sum = 0;
  for (let i = ERFC.length - 1; i >= 0; i--) sum = sum * t + ERFC[i];
  return t * Math.exp(-x * x + sum);
}

const ERFC = [
  -1.26551223, 1.00002368, 0.37409196, 0.09678418, -0.18628806, 0.27886807, -1.13520398, 1.48851587,
  -0.82215223, 0.17087277,
];

/**
 * Which of many findings are told, so that on average at most a share of them is by chance alone (Benjamini & Hochberg 1995, Journal of the Royal
 * Statistical Society B 57(1)).
 * @param chances of each finding, 0 to 1; of NaN nothing is found
 * @param rate the share, 0 to 1
 */
export function beyondChance(chances: readonly number[], rate: number): boolean[] {
  const tested = chances.filter((chance) => !Number.isNaN(chance)).sort((a, b) => a - b);
  let bar = -1;
  tested.forEach((chance, i) => {
    if (chance <= (rate * (i + 1)) / tested.length) bar = chance;
  });
  return chances.map((chance) => chance <= bar);
}

/** How many times as large a share is in the later half of slices as in the earlier; a slice in the middle is in neither. Infinity where it begins later. */
export function timesAsMuch(over: OverTime): number {
  const [earlier, later] = halves(over).map(
    ([from, until]) => sumOf(over.counts, from, until) / sumOf(over.totals, from, until),
  );
  return later / earlier;
}

/** The earlier and the later half of slices, each from one on and before another. */
function halves({ totals }: OverTime): readonly (readonly [from: number, until: number])[] {
  const half = Math.floor(totals.length / 2);
  return [
    [0, half],
    [totals.length - half, totals.length],
  ];
}

function sumOf(numbers: ArrayLike<number>, from: number, until: number): number {
  let sum = 0;
  for (let i = from; i < until; i++) sum += numbers[i];
  return sum;
}

/** Ranks within a slice: 1 for the largest, equal ones alike; null for what is not there. */
export function ranksOf(counts: readonly number[]): (number | null)[] {
  const sorted = counts.filter((count) => count > 0).sort((a, b) => b - a);
  const rank = new Map<number, number>();
  sorted.forEach((count, i) => {
    if (!rank.has(count)) rank.set(count, i + 1);
  });
  return counts.map((count) => rank.get(count) ?? null);
}
