import type { Network, OverTime, OverTimeQuery, PortraitThing } from '@pebble/contract';
import {
  kindOf,
  leadingOverTime,
  MessageGroups,
  nodeLabels,
  numbersOf,
  riseAndFall,
  thingsOverTime,
  type ThingOverTime,
} from '@pebble/core';
import { readTable } from '../storage/files/tables';
import { lastMessage } from '../storage/messages';
import { findNetwork, slicesOfNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { evidenceOf } from '../weaving/evidenceOf';
import { accountsNow, messagesIn } from './messagesOf';
import { nodeKeys } from './nodeKeys';
import { readPortraitThings } from './portraitThings';

/** Something counted in slices; with its place in their tables where it is a node. */
interface Counted extends ThingOverTime {
  readonly nodes?: (number | null)[];
}

interface CountedInSlices {
  readonly things: readonly Counted[];
  /** What all there is in each slice adds up to. */
  readonly totals: number[];
}

/** What leads in the slices of a network, and what rises and falls; null where there are no messages behind them. */
export async function readOverTime(
  store: Store,
  {
    network,
    query: { thing, leastAuthors, most },
  }: { readonly network: string; readonly query: OverTimeQuery },
): Promise<OverTime | null> {
  const slices: Network[] = [];
  for (const id of await slicesOfNetwork(store, network)) slices.push((await findNetwork(store, id))!);
  const counted = await countIn(store, slices, thing);
  if (!counted) return null;
  const { things, totals } = counted;
  return {
    slices: slices.map(({ id, slice }, s) => ({ network: id, title: slice!.title, messages: totals[s] })),
    leading: leadingOverTime(things, slices.length, most),
    // An account is the one author of what it wrote.
    ...riseAndFall(things, totals, { leastAuthors: thing === 'author' ? 1 : leastAuthors, most }),
  };
}

async function countIn(
  store: Store,
  slices: readonly Network[],
  thing: OverTimeQuery['thing'],
): Promise<CountedInSlices | null> {
  if (thing === 'addressed') return addressedIn(store, slices);
  const messages = await messagesOfSlices(store, slices);
  if (!messages) return null;
  const totals = [...messages.sizes];
  if (thing === 'author') return { things: await authorsIn(store, messages), totals };
  const { occurrences, labelOf } = await readPortraitThings(store, thing satisfies PortraitThing);
  return { things: thingsOverTime(occurrences, messages, labelOf), totals };
}

/** The messages behind slices, as groups; null where there are none. */
async function messagesOfSlices(store: Store, slices: readonly Network[]): Promise<MessageGroups | null> {
  const groups = new MessageGroups(slices.length, lastMessage(store));
  for (const [s, slice] of slices.entries()) {
    const evidence = await evidenceOf(store, slice);
    if (!evidence) return null;
    for (const message of evidence.grouped(new Int32Array(slice.nodes), 1).messagesOf(0))
      groups.add(message, s);
  }
  return groups;
}

/** Accounts by the messages that they wrote in each slice, after tidying. */
async function authorsIn(store: Store, slices: MessageGroups): Promise<Counted[]> {
  const tidy = await accountsNow(store);
  const counts = new Map<number, number[]>();
  for (const { message, author } of messagesIn(store, slices, tidy)) {
    if (author < 0) continue;
    let own = counts.get(author);
    if (!own) counts.set(author, (own = new Array<number>(slices.groups).fill(0)));
    for (const s of slices.of(message)) own[s]++;
  }
  return [...counts].map(([account, own]) => ({
    label: tidy.labels.get(account) ?? '',
    counts: own,
    authors: 1,
  }));
}

/** Accounts by how often messages address them in each slice; null where ties are something else. */
function addressedIn(store: Store, slices: readonly Network[]): CountedInSlices | null {
  const found = new Map<string, Counted & { authors: number }>();
  const totals: number[] = [];
  for (const [s, { id, weave, directed }] of slices.entries()) {
    if (!weave || !kindOf(weave).isByAddress || !directed) return null;
    const nodes = readTable(store.folder, id, 'nodes');
    if (!('inStrength' in nodes)) return null;
    const [strength, degree] = [numbersOf(nodes, 'inStrength'), numbersOf(nodes, 'inDegree')];
    const labels = nodeLabels(nodes);
    nodeKeys(store, id).forEach((key, v) => {
      let one = found.get(key);
      if (!one) {
        const counts = new Array<number>(slices.length).fill(0);
        found.set(key, (one = { label: labels[v], counts, authors: 0, nodes: slices.map(() => null) }));
      }
      one.counts[s] = strength[v];
      one.nodes![s] = v;
      // As many as addressed it in one slice at least: those of several slices may be the same.
      one.authors = Math.max(one.authors, degree[v]);
    });
    let total = 0;
    for (const own of strength) total += own;
    totals.push(total);
  }
  return { things: [...found.values()].filter(({ counts }) => counts.some((count) => count > 0)), totals };
}
