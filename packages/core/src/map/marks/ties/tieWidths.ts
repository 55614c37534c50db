import { formatBound } from '../../../words/formatValue';

/** Widths of ties in pixels at scale 1, of the classes of their weights from the lowest to the highest. */
export const WIDTHS = [0.65, 1.0, 1.6, 2.5];
/** How strongly ties of the classes are drawn where the weaker are paler. */
export const OPACITIES = [0.4, 0.7, 1.15, 1.8];

/** The least weight of each class above the lowest. */
export type WidthBounds = readonly number[];

/** Counts that are not large: once, a few times, often, very often. */
const COUNTED: WidthBounds = [2, 4, 10];
const SMALL_COUNT = 2;
const LARGE_COUNT = 100;
/** Share of the strongest ties that all have the largest width, so that one of them does not make all others thin. */
const CUT = 0.005;

/**
 * The classes of the weights above 0 that are not below one: those of counts, or steps that each multiply the weight by the same factor, in
 * round numbers.
 */
export function widthBounds(weights: ArrayLike<number>, atLeast = 0): WidthBounds {
  const rising = Float64Array.from(weights)
    .filter((one) => one > 0 && one >= atLeast && one < Infinity)
    .sort();
  if (rising.length === 0) return COUNTED;
  const least = rising[0];
  const most = rising[Math.ceil((1 - CUT) * rising.length) - 1];
  if (least >= 1 && least <= SMALL_COUNT && most <= LARGE_COUNT) return COUNTED;
  const steps = COUNTED.map((_, i) => least * (most / least) ** ((i + 1) / WIDTHS.length));
  for (let digits = 1; digits < 6; digits++) {
    const round = steps.map((one) => Number(one.toPrecision(digits)));
    if (round.every((one, i) => one > (round[i - 1] ?? least) && one <= most)) return round;
  }
  return steps;
}

/** The class of a weight, from 0. */
export function widthClass(weight: number, bounds: WidthBounds): number {
  if (weight < bounds[0]) return 0;
  if (weight < bounds[1]) return 1;
  return weight < bounds[2] ? 2 : 3;
}

/** What weights the classes hold, in words. */
export function widthLabels(bounds: WidthBounds): string[] {
  if (bounds.join() === COUNTED.join()) return ['1', '2 to 3', '4 to 9', '10 and more'];
  return [`under ${formatBound(bounds[0])}`, ...bounds.map((one) => `from ${formatBound(one)}`)];
}
