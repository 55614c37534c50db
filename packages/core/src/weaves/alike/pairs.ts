import { TooManyTies } from '../common/woven';

/** The words of each set as numbers, ascending: the rarer a word the lower its number. */
export type WordSets = readonly Uint32Array[];

/** Pairs of sets in the order of both; a is below b. */
interface AlikePairs {
  readonly a: Uint32Array;
  readonly b: Uint32Array;
  /** Words that both have. */
  readonly shared: Float64Array;
}

/** Told how far it is after so many sets. */
const STRIDE = 64;

/**
 * All pairs of sets that share enough words, in number and as a share of what either has (Jaccard), found by their rare words: of two sets
 * that share m words of n, one of the n - m + 1 rarest is shared (prefix filter, Bayardo, Ma & Srikant 2007); and only where enough words
 * come behind it in both (positional filter, Xiao, Wang, Lin & Yu 2008), and where two marks of 64 bits differ in few of them. Exact.
 * Throws TooManyTies.
 */
export function alikePairs(
  sets: WordSets,
  { likeness, atLeast }: { readonly likeness: number; readonly atLeast: number },
  most: number,
  progress?: (share: number) => void,
): AlikePairs {
  const { order, words, start, low, high } = laidOut(sets, atLeast);
  const lengthOf = (i: number): number => start[i + 1] - start[i];
  const prefixOf = (i: number): number =>
    lengthOf(i) - Math.max(atLeast, Math.ceil(likeness * lengthOf(i) - 1e-9)) + 1;
  const holders = holdersOf(order.length, words, start, prefixOf);
  const triedWith = new Int32Array(order.length).fill(-1);
  const found = new FoundPairs(most);
  for (let i = 0; i < order.length; i++) {
    // What comes later meets more: the work grows with the square.
    if (i % STRIDE === 0) progress?.((i / order.length) ** 2);
    const own = lengthOf(i);
    const shortest = likeness * own - 1e-9;
    const prefix = prefixOf(i);
    for (let p = 0; p < prefix; p++) {
      const word = words[start[i] + p];
      // Sets come by size: one that is too short for this is too short for all that follow.
      while (holders.first[word] < holders.end[word] && lengthOf(holders.set[holders.first[word]]) < shortest)
        holders.first[word]++;
      for (let h = holders.first[word]; h < holders.end[word]; h++) {
        const j = holders.set[h];
        if (triedWith[j] === i) continue;
        triedWith[j] = i;
        const other = lengthOf(j);
        const least = Math.max(atLeast, leastShared(likeness, own + other));
        // This is the first word that both have: so many can still come.
        if (1 + Math.min(own - p - 1, other - holders.place[h] - 1) < least) continue;
        if (own + other - bits(low[i] ^ low[j]) - bits(high[i] ^ high[j]) < 2 * least) continue;
        const shared = sharedFrom(
          words,
          start[i] + p,
          start[i + 1],
          words,
          start[j] + holders.place[h],
          start[j + 1],
          least,
        );
        if (shared >= atLeast && shared / (own + other - shared) >= likeness - 1e-12)
          found.add(order[i], order[j], shared);
      }
    }
    for (let p = 0; p < prefix; p++) holders.add(words[start[i] + p], i, p);
  }
  return found.sorted();
}

/** Words that sets of so many words together share at least to be alike; one too few rather than one too many. */
function leastShared(likeness: number, together: number): number {
  return Math.ceil((likeness / (1 + likeness)) * together - 1e-6);
}

/** Sets that are large enough, the smallest first, one behind the other; each with a mark of 64 bits, in two halves. */
function laidOut(sets: WordSets, atLeast: number) {
  const order = Uint32Array.from(sets.keys())
    .filter((v) => sets[v].length >= atLeast)
    .sort((v, w) => sets[v].length - sets[w].length || v - w);
  const start = new Uint32Array(order.length + 1);
  order.forEach((v, i) => (start[i + 1] = start[i] + sets[v].length));
  const words = new Uint32Array(start[order.length]);
  const low = new Int32Array(order.length);
  const high = new Int32Array(order.length);
  order.forEach((v, i) => {
    words.set(sets[v], start[i]);
    for (const word of sets[v]) {
      const bit = (Math.imul(word, 0x9e3779b1) >>> 26) & 63;
      if (bit < 32) low[i] ^= 1 << bit;
      else high[i] ^= 1 << (bit - 32);
    }
  });
  return { order, words, start, low, high };
}

/** For each word the sets that have it among their rare ones, in the order in which they were added. */
function holdersOf(sets: number, words: Uint32Array, start: Uint32Array, prefixOf: (set: number) => number) {
  let most = 0;
  for (const word of words) if (word >= most) most = word + 1;
  const first = new Uint32Array(most + 1);
  for (let i = 0; i < sets; i++) {
    const until = start[i] + prefixOf(i);
    for (let at = start[i]; at < until; at++) first[words[at] + 1]++;
  }
  for (let word = 0; word < most; word++) first[word + 1] += first[word];
  const set = new Uint32Array(first[most]);
  const place = new Uint32Array(first[most]);
  const end = first.slice();
  const add = (word: number, i: number, p: number): void => {
    set[end[word]] = i;
    place[end[word]++] = p;
  };
  return { first, end, set, place, add };
}

/** How many numbers two ascending lists share. */
export function sharedOf(a: ArrayLike<number>, b: ArrayLike<number>): number {
  return sharedFrom(a, 0, a.length, b, 0, b.length, 0);
}

/** How many numbers two ascending lists share within two ranges; fewer than they do where it cannot be `least`. */
function sharedFrom(
  a: ArrayLike<number>,
  i: number,
  iEnd: number,
  b: ArrayLike<number>,
  j: number,
  jEnd: number,
  least: number,
): number {
  let shared = 0;
  while (i < iEnd && j < jEnd) {
    const [v, w] = [a[i], b[j]];
    if (v === w) {
      shared++;
      i++;
      j++;
    } else {
      if (v < w) i++;
      else j++;
      if (shared + Math.min(iEnd - i, jEnd - j) < least) return shared;
    }
  }
  return shared;
}

/** How many bits of a number are set. */
function bits(value: number): number {
  let x = value - ((value >>> 1) & 0x55555555);
  x = (x & 0x33333333) + ((x >>> 2) & 0x33333333);
  return Math.imul((x + (x >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

/** Pairs as they are found. */
class FoundPairs {
  private readonly low: number[] = [];
  private readonly high: number[] = [];
  private readonly shared: number[] = [];

  constructor(private readonly most: number) {}

  add(v: number, w: number, shared: number): void {
    if (this.low.length === this.most) throw new TooManyTies(this.most + 1, null);
    this.low.push(Math.min(v, w));
    this.high.push(Math.max(v, w));
    this.shared.push(shared);
  }

  sorted(): AlikePairs {
    const { low, high, shared } = this;
    const order = Uint32Array.from(low.keys()).sort((p, q) => low[p] - low[q] || high[p] - high[q]);
    return {
      a: order.map((p) => low[p]),
      b: order.map((p) => high[p]),
      shared: Float64Array.from(order, (p) => shared[p]),
    };
  }
}
