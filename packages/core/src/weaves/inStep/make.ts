import type { InStepWeave } from '@pebble/contract';
import type { Occurrences } from '../common/occurrences';
import { withoutIsolates } from '../common/keepNodes';
import type { Woven } from '../common/woven';

/**
 * Accounts that posted the same thing (a text, a link, a set of hashtags) within some seconds of each other, at least k times. The weight
 * is the number of different things with which that happened. "Chance" is how likely so many are, given which things both posted and how
 * often, if the moments were spread evenly over the period: a Poisson tail with the sum of n(a) n(b) 2 S / T over shared things (common
 * practice; it takes posts as independent, which they never quite are).
 */
export function weaveInStep(occurrences: Occurrences, weave: InStepWeave): Woven {
  const { message, author, thing, time, count } = occurrences;
  const window = weave.seconds * 1000;
  const dated = Uint32Array.from({ length: count }, (_, i) => i).filter((i) => !Number.isNaN(time[i]));
  let first = Infinity;
  let last = -Infinity;
  for (const i of dated) {
    first = Math.min(first, time[i]);
    last = Math.max(last, time[i]);
  }
  const period = Math.max(window, (weave.until ?? last) - (weave.from ?? first));
  const order = dated.sort((a, b) => thing[a] - thing[b] || time[a] - time[b] || message[a] - message[b]);
  const accounts = [...new Set(Array.from(order, (i) => author[i]))].sort((a, b) => a - b);
  const place = new Map(accounts.map((account, i) => [account, i]));
  const pairs = new Map<number, Pair>();
  const uses = new Float64Array(accounts.length);
  for (let from = 0; from < order.length;) {
    let until = from;
    while (until < order.length && thing[order[until]] === thing[order[from]]) until++;
    const rows = order.subarray(from, until);
    addThing(rows, occurrences, place, accounts.length, window, period, pairs);
    from = until;
  }
  // A message with several such things counts once.
  const byMessage = dated.sort((a, b) => message[a] - message[b]);
  byMessage.forEach((i, at) => {
    if (at === 0 || message[i] !== message[byMessage[at - 1]]) uses[place.get(author[i])!]++;
  });
  const kept = [...pairs].filter(([, pair]) => pair.things >= weave.atLeast).sort(([a], [b]) => a - b);
  const column = (of: (pair: Pair) => number): Float64Array =>
    Float64Array.from(kept, ([, pair]) => of(pair));
  const evidence = Uint32Array.from(order).sort(
    (a, b) => author[a] - author[b] || thing[a] - thing[b] || message[a] - message[b],
  );
  return withoutIsolates({
    directed: false,
    id: Uint32Array.from(accounts),
    mode: new Uint8Array(accounts.length),
    uses,
    source: Uint32Array.from(kept, ([key]) => Math.floor(key / accounts.length)),
    target: Uint32Array.from(kept, ([key]) => key % accounts.length),
    weight: column(({ things }) => things),
    columns: {
      chance: column(({ things, expected }) => poissonTail(things, expected)),
      first: column((pair) => pair.first),
      last: column((pair) => pair.last),
    },
    evidence: () => ({
      node: Uint32Array.from(evidence, (i) => place.get(author[i])!),
      unit: Uint32Array.from(evidence, (i) => thing[i]),
      message: Float64Array.from(evidence, (i) => message[i]),
      time: Float64Array.from(evidence, (i) => time[i]),
    }),
    window,
    droppedBelowThreshold: pairs.size - kept.length,
    notes:
      dated.length < count ? [`${count - dated.length} messages without a date could not be compared.`] : [],
  });
}

interface Pair {
  /** Things that both posted within the window. */
  things: number;
  /** How many would be expected by chance. */
  expected: number;
  first: number;
  last: number;
}

/** All posts of one thing, by time: which accounts posted it within the window of each other. */
function addThing(
  rows: Uint32Array,
  { author, time }: Occurrences,
  place: ReadonlyMap<number, number>,
  accounts: number,
  window: number,
  period: number,
  pairs: Map<number, Pair>,
): void {
  const posts = new Map<number, number>();
  for (const i of rows) posts.set(author[i], (posts.get(author[i]) ?? 0) + 1);
  if (posts.size < 2) return;
  const met = new Set<number>();
  for (let i = 0; i < rows.length; i++) {
    for (let j = i + 1; j < rows.length && time[rows[j]] - time[rows[i]] <= window; j++) {
      const [a, b] = [place.get(author[rows[i]])!, place.get(author[rows[j]])!];
      if (a === b) continue;
      const key = Math.min(a, b) * accounts + Math.max(a, b);
      const pair = pairs.get(key) ?? { things: 0, expected: 0, first: Infinity, last: -Infinity };
      pairs.set(key, pair);
      pair.first = Math.min(pair.first, time[rows[i]]);
      pair.last = Math.max(pair.last, time[rows[j]]);
      if (met.has(key)) continue;
      met.add(key);
      pair.things++;
      const [na, nb] = [posts.get(author[rows[i]])!, posts.get(author[rows[j]])!];
      pair.expected += Math.min(1, (na * nb * 2 * window) / period);
    }
  }
}

/** The probability of k or more where `mean` are expected (Poisson). */
export function poissonTail(k: number, mean: number): number {
  if (k <= 0) return 1;
  if (mean <= 0) return 0;
  // Small tails are added up from k on, which keeps their digits.
  let term = Math.exp(k * Math.log(mean) - mean - logFactorial(k));
  let sum = 0;
  for (let i = k; term > 0 && i < k + 10_000; i++) {
    sum += term;
    if (term < sum * 1e-17 && i > mean) break;
    term *= mean / (i + 1);
  }
  return Math.min(1, sum);
}

function logFactorial(n: number): number {
  let sum = 0;
  for (let i = 2; i <= n; i++) sum += Math.log(i);
  return sum;
}
