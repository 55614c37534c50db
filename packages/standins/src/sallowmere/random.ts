import { Random } from '@pebble/core';

/** Draws from a fixed list of weights in logarithmic time. */
export class WeightedChoice<T> {
  private readonly sums: Float64Array;

  constructor(
    private readonly items: readonly T[],
    weight: (item: T, index: number) => number,
  ) {
    let sum = 0;
    this.sums = Float64Array.from(items, (item, i) => (sum += weight(item, i)));
  }

  draw(chance: Random): T {
    const wanted = chance.real() * this.sums[this.sums.length - 1];
    let low = 0;
    let high = this.sums.length - 1;
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (this.sums[middle] > wanted) high = middle;
      else low = middle + 1;
    }
    return this.items[low];
  }
}
