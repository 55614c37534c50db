/** How far along a ramp a number lies. */
interface RampShare {
  /** 0 to 1, NaN for no number. */
  of(value: number): number;
  /** The numbers at either end of the ramp. */
  readonly ends: readonly [number, number];
}

/** From the least to the highest, by the root: most numbers of networks are small. */
export function risingShare(range: readonly [number, number]): RampShare {
  const [least, most] = range;
  const width = Math.sqrt(Math.max(most - least, 1e-12));
  return { of: (value) => within(Math.sqrt(Math.max(0, value - least)) / width), ends: range };
}

/** To either side of a middle, as far as the number that is farthest from it. */
export function middledShare([least, most]: readonly [number, number], middle: number): RampShare {
  const reach = Math.max(Math.abs(least - middle), Math.abs(most - middle), 1e-12);
  return {
    of: (value) => within(0.5 + (value - middle) / (2 * reach)),
    ends: [middle - reach, middle + reach],
  };
}

/** Keeps what is no number. */
function within(share: number): number {
  return Math.min(1, Math.max(0, share));
}

/** Least and highest value of some nodes or ties; of the highest ones a share is cut off. Both 0 where there is none. */
export function rangeOf(value: ArrayLike<number>, places: Uint32Array, cut = 0): readonly [number, number] {
  let least = Infinity;
  let most = -Infinity;
  for (const v of places) {
    if (value[v] < least) least = value[v];
    if (value[v] > most) most = value[v];
  }
  if (!(least <= most)) return [0, 0];
  if (cut === 0) return [least, most];
  const rising = Float64Array.from(places, (v) => value[v])
    .filter((one) => !Number.isNaN(one))
    .sort();
  return [least, rising[Math.max(0, Math.ceil(rising.length * (1 - cut)) - 1)]];
}
