/**
 * The one source of chance: a seeded generator that gives the same numbers on every machine.
 * xoshiro128** by Blackman & Vigna (2021), ACM Trans. Math. Softw. 47, seeded through splitmix32.
 */
export class Random {
  private a: number;
  private b: number;
  private c: number;
  private d: number;

  /** @param seed whole number from 0 to 2^32 - 1 */
  constructor(seed: number) {
    let state = seed >>> 0;
    const next = (): number => {
      state = (state + 0x9e3779b9) | 0;
      let z = state;
      z = Math.imul(z ^ (z >>> 16), 0x21f0aaad);
      z = Math.imul(z ^ (z >>> 15), 0x735a2d97);
      return (z ^ (z >>> 15)) | 0;
    };
    this.a = next();
    this.b = next();
    this.c = next();
    this.d = next();
  }

  /** A whole number from 0 to 2^32 - 1. */
  uint32(): number {
    const { b } = this;
    const five = Math.imul(b, 5);
    const result = Math.imul((five << 7) | (five >>> 25), 9) >>> 0;
    const t = b << 9;
    this.c ^= this.a;
    this.d ^= this.b;
    this.b ^= this.c;
    this.a ^= this.d;
    this.c ^= t;
    this.d = (this.d << 11) | (this.d >>> 21);
    return result;
  }

  /** A number from 0 up to, not including, 1. */
  real(): number {
    return this.uint32() / 4294967296;
  }

  /** A whole number from 0 up to, not including, `bound`. */
  below(bound: number): number {
    return Math.floor(this.real() * bound);
  }

  /** One of the items; each is as likely. */
  pick<T>(items: readonly T[]): T {
    return items[this.below(items.length)];
  }

  chance(probability: number): boolean {
    return this.real() < probability;
  }

  /** Some of the numbers from 0 to `size` - 1, each set of so many as likely, ascending; all of them when fewer are there. */
  sample(size: number, wanted: number): number[] {
    const moved = new Map<number, number>();
    const count = Math.min(size, wanted);
    const drawn: number[] = [];
    // Fisher & Yates from the front, remembering only the places that were touched.
    for (let i = 0; i < count; i++) {
      const j = i + this.below(size - i);
      drawn.push(moved.get(j) ?? j);
      moved.set(j, moved.get(i) ?? i);
    }
    return drawn.sort((a, b) => a - b);
  }

  /** Shuffles in place (Fisher & Yates). */
  shuffle<A extends { length: number; [index: number]: unknown }>(items: A): A {
    const array = items as { length: number; [index: number]: unknown };
    for (let i = array.length - 1; i > 0; i--) {
      const j = this.below(i + 1);
      const kept = array[i];
      array[i] = array[j];
      array[j] = kept;
    }
    return items;
  }
}
