import type { AlikeWeave } from '@pebble/contract';
import type { Occurrences } from '../common/occurrences';
import { groupRows, numberKeys, pick, pickNumbers } from '../common/rows';
import { withoutIsolates } from '../common/keepNodes';
import { alikePairs, sharedOf, type WordSets } from './pairs';
import { MOST_TIES, type EvidenceRows, type Woven } from '../common/woven';

const DAY = 86_400_000;

/**
 * Messages, or accounts, tied by their words: two are alike when they share enough of them, in number and as a share of what either has
 * (Jaccard). Common words have been left out of the occurrences. The weight is that share, or the number of words where no share is asked for.
 * Throws TooManyTies.
 */
export function weaveAlike(
  occurrences: Occurrences,
  weave: AlikeWeave,
  progress?: (share: number) => void,
): Woven {
  const ofMessages = weave.nodes === 'message';
  const all = Uint32Array.from({ length: occurrences.count }, (_, i) => i);
  const nodes = numberKeys(all, (i) => (ofMessages ? occurrences.message[i] : occurrences.author[i]));
  const words = numberKeys(all, (i) => occurrences.thing[i]);
  const sets = wordSets(nodes.count, nodes.of, words.count, words.of);
  const { a, b, shared } = alikePairs(sets, weave, MOST_TIES, progress);
  const likeness = shared.map((count, e) => count / (sets[a[e]].length + sets[b[e]].length - count));
  const isByShare = weave.likeness > 0;
  const { first, last } = dailyTieCounts(nodes.count, nodes.of, occurrences.time);
  const ofBoth = (of: (a: number, b: number) => number): Float64Array =>
    Float64Array.from(a, (node, e) => of(node, b[e]));
  const days = daysOf(nodes.count, nodes.of, occurrences.time);
  return withoutIsolates({
    directed: false,
    id: Uint32Array.from(nodes.keys),
    mode: new Uint8Array(nodes.count),
    uses: messagesOf(nodes.count, nodes.of, occurrences),
    source: a,
    target: b,
    weight: isByShare ? likeness : shared,
    columns: {
      shared,
      likeness,
      // Of both together: of accounts the days on which either wrote something with these words.
      days: ofBoth((v, w) => unionSize(days[v], days[w])),
      first: ofBoth((v, w) => lesser(first[v], first[w])),
      last: ofBoth((v, w) => -lesser(-last[v], -last[w])),
    },
    evidence: () =>
      evidenceOf(occurrences, nodes.count, nodes.of, ofMessages ? new Uint32Array(all.length) : words.of),
    // Pairs that are less alike are not gone through, and cannot be counted.
    droppedBelowThreshold: 0,
    notes: [],
  });
}

/** The words of each node by how rare they are. */
function wordSets(nodes: number, node: Uint32Array, words: number, word: Uint32Array): WordSets {
  const byNode = groupRows(nodes, node);
  const sets = Array.from({ length: nodes }, (_, v) => [
    ...new Set(pick(byNode.values.subarray(byNode.start[v], byNode.start[v + 1]), (i) => word[i])),
  ]);
  const uses = new Uint32Array(words);
  for (const set of sets) for (const w of set) uses[w]++;
  const rank = new Uint32Array(words);
  Uint32Array.from(uses.keys())
    .sort((v, w) => uses[v] - uses[w] || v - w)
    .forEach((w, i) => (rank[w] = i));
  return sets.map((set) => Uint32Array.from(set, (w) => rank[w]).sort());
}

/** The days (UTC) on which the rows of each node fall, ascending, each once. */
function daysOf(nodes: number, node: Uint32Array, time: ArrayLike<number>): readonly Float64Array[] {
  const { start, values } = groupRows(nodes, node);
  return Array.from({ length: nodes }, (_, v) => {
    const all = pickNumbers(values.subarray(start[v], start[v + 1]), (i) => Math.floor(time[i] / DAY)).sort();
    return all.filter((day, i) => !Number.isNaN(day) && day !== all[i - 1]);
  });
}

/** How many different numbers stand in two ascending lists. */
function unionSize(a: ArrayLike<number>, b: ArrayLike<number>): number {
  return a.length + b.length - sharedOf(a, b);
}

/** The lesser of two numbers; where one is missing the other. */
function lesser(a: number, b: number): number {
  if (Number.isNaN(a)) return b;
  return b < a ? b : a;
}

function dailyTieCounts(
  nodes: number,
  node: Uint32Array,
  time: ArrayLike<number>,
): { first: Float64Array; last: Float64Array } {
  const first = new Float64Array(nodes).fill(NaN);
  const last = new Float64Array(nodes).fill(NaN);
  for (let i = 0; i < node.length; i++) {
    const v = node[i];
    if (!(first[v] <= time[i])) first[v] = Number.isNaN(time[i]) ? first[v] : time[i];
    if (!(last[v] >= time[i])) last[v] = Number.isNaN(time[i]) ? last[v] : time[i];
  }
  return { first, last };
}

/** Messages of each node; rows of a message stand together. */
function messagesOf(nodes: number, node: Uint32Array, { message }: Occurrences): Float64Array {
  const uses = new Float64Array(nodes);
  for (let i = 0; i < node.length; i++) if (i === 0 || message[i] !== message[i - 1]) uses[node[i]]++;
  return uses;
}

/** Of messages all share one unit, so that both stand behind their tie; of accounts those with a word that both use. */
function evidenceOf(
  { message, time }: Occurrences,
  nodes: number,
  node: Uint32Array,
  unit: Uint32Array,
): EvidenceRows {
  let units = 0;
  for (const u of unit) if (u >= units) units = u + 1;
  const order = groupRows(nodes, node, groupRows(units, unit).values).values;
  // A message stands with each of its words: once for each unit is enough.
  const kept = order.filter(
    (i, at) =>
      at === 0 ||
      node[order[at - 1]] !== node[i] ||
      unit[order[at - 1]] !== unit[i] ||
      message[order[at - 1]] !== message[i],
  );
  return {
    node: pick(kept, (i) => node[i]),
    unit: pick(kept, (i) => unit[i]),
    message: pickNumbers(kept, (i) => message[i]),
    time: pickNumbers(kept, (i) => time[i]),
  };
}
