/** Adds up rows by pair of numbers, in typed arrays: an open hash table with linear probing. Pairs keep their first order. */
export class PairTable {
  size = 0;
  from = new Uint32Array(1024);
  to = new Uint32Array(1024);
  /** Rows of each pair. */
  count = new Float64Array(1024);
  /** What the rows of each pair count for; as many as there are rows where each counts one. */
  amount = new Float64Array(1024);
  /** Rows of each pair by bit of their mask. */
  readonly byKind: Float64Array[];
  first = new Float64Array(1024);
  last = new Float64Array(1024);
  private slots = new Int32Array(4096).fill(-1);

  constructor(kinds: number) {
    this.byKind = Array.from({ length: kinds }, () => new Float64Array(1024));
  }

  /**
   * Gives the number of its pair.
   * @param mask bit k adds one to byKind[k]
   * @param amount what the row counts for
   */
  add(from: number, to: number, mask: number, time: number, amount = 1): number {
    const p = this.find(from, to);
    this.count[p]++;
    this.amount[p] += amount;
    // Bit by bit, the lowest first; most masks have one.
    for (let bits = mask; bits !== 0; bits &= bits - 1) this.byKind[31 - Math.clz32(bits & -bits)][p]++;
    if (time < this.first[p] || Number.isNaN(this.first[p])) this.first[p] = time;
    if (time > this.last[p] || Number.isNaN(this.last[p])) this.last[p] = time;
    return p;
  }

  /** The pairs that are kept, by `from` and then `to`. */
  sorted(isKept: (pair: number) => boolean): Uint32Array {
    let largest = 0;
    for (let p = 0; p < this.size; p++) largest = Math.max(largest, this.to[p]);
    // Sorting plain numbers is several times quicker than sorting by a function; numbers of accounts are far below 2^26.
    const width = largest + 1;
    const keys = new Float64Array(this.size);
    let kept = 0;
    for (let p = 0; p < this.size; p++) if (isKept(p)) keys[kept++] = this.from[p] * width + this.to[p];
    const order = keys.subarray(0, kept).sort();
    const pairs = new Uint32Array(kept);
    for (let i = 0; i < kept; i++) {
      const from = Math.floor(order[i] / width);
      pairs[i] = this.find(from, order[i] - from * width);
    }
    return pairs;
  }

  has(from: number, to: number): boolean {
    return this.at(from, to) !== undefined;
  }

  /** The number of a pair that is there. */
  at(from: number, to: number): number | undefined {
    const mask = this.slots.length - 1;
    for (let slot = hash(from, to) & mask; this.slots[slot] >= 0; slot = (slot + 1) & mask) {
      const p = this.slots[slot];
      if (this.from[p] === from && this.to[p] === to) return p;
    }
    return undefined;
  }

  /** The number of a pair; it is made where there is none yet. */
  find(from: number, to: number): number {
    const mask = this.slots.length - 1;
    let slot = hash(from, to) & mask;
    for (;;) {
      const p = this.slots[slot];
      if (p < 0) break;
      if (this.from[p] === from && this.to[p] === to) return p;
      slot = (slot + 1) & mask;
    }
    if (this.size === this.from.length) this.growColumns();
    const p = this.size++;
    this.from[p] = from;
    this.to[p] = to;
    this.first[p] = NaN;
    this.last[p] = NaN;
    this.slots[slot] = p;
    if (this.size * 2 > this.slots.length) this.growSlots();
    return p;
  }

  private growColumns(): void {
    const length = this.from.length * 2;
    const floats = (old: Float64Array): Float64Array<ArrayBuffer> => {
      const grown = new Float64Array(length);
      grown.set(old);
      return grown;
    };
    const numbers = (old: Uint32Array): Uint32Array<ArrayBuffer> => {
      const grown = new Uint32Array(length);
      grown.set(old);
      return grown;
    };
    this.from = numbers(this.from);
    this.to = numbers(this.to);
    this.count = floats(this.count);
    this.amount = floats(this.amount);
    this.first = floats(this.first);
    this.last = floats(this.last);
    for (let k = 0; k < this.byKind.length; k++) this.byKind[k] = floats(this.byKind[k]);
  }

  private growSlots(): void {
    this.slots = new Int32Array(this.slots.length * 2).fill(-1);
    const mask = this.slots.length - 1;
    for (let p = 0; p < this.size; p++) {
      let slot = hash(this.from[p], this.to[p]) & mask;
      while (this.slots[slot] >= 0) slot = (slot + 1) & mask;
      this.slots[slot] = p;
    }
  }
}

function hash(from: number, to: number): number {
  let h = Math.imul(from, 0x9e3779b1) ^ Math.imul(to, 0x85ebca6b);
  h ^= h >>> 15;
  h = Math.imul(h, 0x2c1b3c6d);
  return (h ^ (h >>> 13)) >>> 0;
}
