import { Random } from '../../random';

/** What each of several coders gave one unit: a value, or null where a coder did not see it. */
export type CodedUnit = readonly (number | null)[];

/**
 * How far two coders agree beyond chance: Cohen's kappa (1960, Educational and Psychological Measurement 20(1)), at most 1. Units that one of
 * them did not see are left out. NaN where there are none, or both give all the same value.
 */
export function cohenKappa(units: readonly CodedUnit[]): number {
  const both = units.filter(([a, b]) => a !== null && b !== null) as [number, number][];
  const first = new Map<number, number>();
  const second = new Map<number, number>();
  let alike = 0;
  for (const [a, b] of both) {
    first.set(a, (first.get(a) ?? 0) + 1);
    second.set(b, (second.get(b) ?? 0) + 1);
    if (a === b) alike++;
  }
  const count = both.length;
  let chance = 0;
  for (const [value, own] of first) chance += (own / count) * ((second.get(value) ?? 0) / count);
  return count === 0 || chance === 1 ? NaN : (alike / count - chance) / (1 - chance);
}

/**
 * Reliability of any number of coders with any gaps: Krippendorff's alpha for nominal values (2011, Computing Krippendorff's alpha-reliability), at
 * most 1. NaN where no unit has two values, or all values are the same.
 */
export function krippendorffAlpha(units: readonly CodedUnit[]): number {
  const totals = new Map<number, number>();
  let count = 0;
  let observed = 0;
  for (const unit of units) {
    const values = unit.filter((value) => value !== null);
    if (values.length < 2) continue;
    const own = new Map<number, number>();
    for (const value of values) own.set(value, (own.get(value) ?? 0) + 1);
    count += values.length;
    for (const [value, times] of own) {
      totals.set(value, (totals.get(value) ?? 0) + times);
      observed += (times * (values.length - times)) / (values.length - 1);
    }
  }
  let expected = 0;
  for (const times of totals.values()) expected += times * (count - times);
  return expected === 0 ? NaN : 1 - ((count - 1) * observed) / expected;
}

/** Half of what lies outside of an interval. */
const OUTSIDE = 0.025;

/**
 * Where a measure of units lies in 95 of 100 samples of as many units, drawn with replacement (percentiles of the bootstrap; common practice).
 * Samples for which it is not defined are left out; null where that are all.
 */
export function resampledInterval(
  units: readonly CodedUnit[],
  measure: (units: readonly CodedUnit[]) => number,
  seed: number,
  runs = 1000,
): readonly [low: number, high: number] | null {
  const random = new Random(seed);
  const values: number[] = [];
  for (let run = 0; run < runs; run++) {
    const value = measure(units.map(() => units[random.below(units.length)]));
    if (!Number.isNaN(value)) values.push(value);
  }
  if (values.length === 0) return null;
  values.sort((a, b) => a - b);
  const at = (share: number): number =>
    values[Math.min(values.length - 1, Math.floor(share * values.length))];
  return [at(OUTSIDE), at(1 - OUTSIDE)];
}
