import type { TogetherWeave } from '@pebble/contract';
import { distinctDays } from '../common/days';
import { PairTable } from '../common/pairTable';
import { chooseOccurrences, type ChosenOccurrences, type ThreadOccurrences } from '../common/occurrences';
import { groupRows, pickNumbers, setOf } from '../common/rows';
import { withoutIsolates } from '../common/keepNodes';
import { refuseTooMany, type EvidenceRows, type Woven } from '../common/woven';

/** Words that are next to each other are one apart; things of one message that are not more than `within` apart are near. */
type NearWeave = Pick<
  TogetherWeave,
  'within' | 'weight' | 'scale' | 'atLeast' | 'isolates' | 'usedAtLeast' | 'mostUsed' | 'mostInOne'
>;

/**
 * Things tied when they stand near each other in a message (co-occurrence within a window of words, common practice of text analysis).
 * A message counts once for each pair. Scaled weights take messages for units: each counts 1 / (k - 1) with k things in it (Newman), or
 * the messages in which both are near are set against those in which either stands.
 * @param occurrences with the word at which each thing stands
 * Throws TooManyTies.
 */
export function weaveNear(
  occurrences: ThreadOccurrences,
  weave: NearWeave,
  isLeftOut: (thing: number) => boolean,
): Woven {
  const chosen = chooseOccurrences(occurrences, weave, isLeftOut);
  const nodes = chosen.things.length;
  const messages = takenMessages(occurrences, chosen);
  const table = new PairTable(0);
  const authors = new Map<number, Set<number>>();
  const byAuthors = weave.weight === 'authors';
  const pairOf: number[] = [];
  const dailyTieCounts: number[] = [];
  for (const begin of messages) {
    const { pairs, things } = nearIn(occurrences, chosen, begin, weave.within);
    for (const [a, b] of pairs) {
      const pair = table.add(a, b, 0, occurrences.time[begin], 1 / (things - 1));
      pairOf.push(pair);
      dailyTieCounts.push(occurrences.time[begin]);
      if (byAuthors) setOf(authors, pair).add(occurrences.author[begin]);
    }
  }
  const days = distinctDays(table.size, Uint32Array.from(pairOf), dailyTieCounts);
  const strength = (p: number): number => (byAuthors ? authors.get(p)!.size : table.count[p]);
  const kept = table.sorted((p) => strength(p) >= weave.atLeast);
  refuseTooMany(pickNumbers(kept, strength));
  const column = (of: (pair: number) => number): Float64Array => pickNumbers(kept, of);
  const woven: Woven = {
    directed: false,
    id: chosen.things,
    mode: new Uint8Array(nodes),
    uses: chosen.uses,
    source: kept.map((p) => table.from[p]),
    target: kept.map((p) => table.to[p]),
    weight: column((p) => weightOf(weave.scale, strength(p), p, table, chosen.uses)),
    columns: {
      shared: column((p) => table.count[p]),
      days: column((p) => days[p]),
      first: column((p) => table.first[p]),
      last: column((p) => table.last[p]),
    },
    evidence: () => evidenceOf(occurrences, chosen, messages, weave.within),
    droppedBelowThreshold: table.size - kept.length,
    notes: chosen.notes,
  };
  return weave.isolates ? woven : withoutIsolates(woven);
}

function weightOf(
  scale: TogetherWeave['scale'],
  strength: number,
  pair: number,
  { count, amount, from, to }: PairTable,
  uses: Float64Array,
): number {
  const [a, b] = [uses[from[pair]], uses[to[pair]]];
  switch (scale) {
    case 'count':
      return strength;
    case 'newman':
      return amount[pair];
    case 'jaccard':
      return count[pair] / (a + b - count[pair]);
    case 'cosine':
      return count[pair] / Math.sqrt(a * b);
  }
}

/** The first row of every message with a thing that is kept: of what stands twice in a message all places count here. */
function takenMessages({ message, count }: ThreadOccurrences, { rows }: ChosenOccurrences): Uint32Array {
  const starts: number[] = [];
  let begin = 0;
  let last = NaN;
  for (const row of rows) {
    if (message[row] === last) continue;
    last = message[row];
    while (begin < count && message[begin] !== last) begin++;
    starts.push(begin);
  }
  return Uint32Array.from(starts);
}

interface NearIn {
  /** Pairs of nodes, the lower first, each once. */
  readonly pairs: readonly (readonly [number, number])[];
  /** How many different things stand in the message. */
  readonly things: number;
}

/** What is near what in the message that begins with a row. */
function nearIn(
  { message, thing, at, count }: ThreadOccurrences,
  { placeOf }: ChosenOccurrences,
  begin: number,
  within: number,
): NearIn {
  const stands: { readonly node: number; readonly at: number }[] = [];
  for (let i = begin; i < count && message[i] === message[begin]; i++)
    if (placeOf[thing[i]] >= 0) stands.push({ node: placeOf[thing[i]], at: at?.[i] ?? 0 });
  stands.sort((a, b) => a.at - b.at || a.node - b.node);
  const pairs = new Map<string, readonly [number, number]>();
  for (let i = 0; i < stands.length; i++)
    for (let j = i + 1; j < stands.length && stands[j].at - stands[i].at <= within; j++) {
      const [a, b] = [stands[i].node, stands[j].node].sort((x, y) => x - y);
      if (a !== b) pairs.set(`${a} ${b}`, [a, b]);
    }
  return { pairs: [...pairs.values()], things: new Set(stands.map(({ node }) => node)).size };
}

/** Each near pair of a message is a unit, so that only messages in which both are near stand behind a tie. */
function evidenceOf(
  occurrences: ThreadOccurrences,
  chosen: ChosenOccurrences,
  messages: Uint32Array,
  within: number,
): EvidenceRows {
  const node: number[] = [];
  const unit: number[] = [];
  const row: number[] = [];
  let units = 0;
  for (const begin of messages) {
    const { pairs } = nearIn(occurrences, chosen, begin, within);
    const add = (ends: readonly number[]): void => {
      for (const end of ends) {
        node.push(end);
        unit.push(units);
        row.push(begin);
      }
      units++;
    };
    pairs.forEach(add);
    // What has nothing near it in this message stands in it all the same.
    const near = new Set(pairs.flat());
    const { message, thing, count } = occurrences;
    const alone = new Set<number>();
    for (let i = begin; i < count && message[i] === message[begin]; i++) {
      const place = chosen.placeOf[thing[i]];
      if (place >= 0 && !near.has(place)) alone.add(place);
    }
    for (const place of alone) add([place]);
  }
  const order = groupRows(chosen.things.length, Uint32Array.from(node)).values;
  return {
    node: order.map((i) => node[i]),
    unit: order.map((i) => unit[i]),
    message: pickNumbers(order, (i) => occurrences.message[row[i]]),
    time: pickNumbers(order, (i) => occurrences.time[row[i]]),
  };
}
