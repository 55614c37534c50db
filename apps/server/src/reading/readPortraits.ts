import type {
  FullPortrait,
  GroupMessagesQuery,
  MessagePage,
  Network,
  PortraitList,
  PortraitThing,
} from '@pebble/contract';
import { nodeLabels, type MessageGroups, type Tie } from '@pebble/core';
import { readTable } from '../storage/files/tables';
import { readMessagesById } from '../storage/messages';
import { findNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { readPortraitBody, readPortraitHeads, readPortraitSet } from '../storage/portraits';
import type { Evidence } from '../weaving/evidence/evidence';
import { readTies } from '../weaving/evidence/ties';
import { evidenceOf } from '../weaving/evidenceOf';
import { answersTo, pageOf } from './messagesOf';
import { drawnFromNow, outOfDatePhrase } from './outOfDate';
import { readPortraitThings } from './portraitThings';

/** The portraits of a grouping; null where there are none. */
export async function readPortraits(
  store: Store,
  { network: id, column }: { readonly network: string; readonly column: string },
): Promise<PortraitList | null> {
  const network = await findNetwork(store, id);
  const set = network && (await readPortraitSet(store, id, column));
  if (!set) return null;
  const { drawnFrom, ...told } = set;
  return {
    ...told,
    column,
    outOfDate: outOfDatePhrase(drawnFrom, await drawnFromNow(store, network, column)),
    groups: await readPortraitHeads(store, id, column),
  };
}

/** All that is known of a group, with the messages that are named; null where it was not portrayed. */
export async function readGroupPortrait(
  store: Store,
  { network, column, group }: { readonly network: string; readonly column: string; readonly group: string },
): Promise<FullPortrait | null> {
  const body = await readPortraitBody(store, network, column, group);
  if (!body) return null;
  const named = [
    ...[...body.reposted, ...body.answered, ...body.nearest].map(({ message }) => message),
    ...body.sample,
    ...body.notes.quotations,
  ];
  const told = [
    ...[body.addressed, body.addressing, body.active, body.waysOut, body.outside]
      .flat()
      .map(({ node }) => node),
    ...body.ties.flatMap(({ by }) => by),
  ];
  // Of a large network the names of all would take longer than the rest.
  const nodes = [...new Set(told)];
  const labels = nodeLabels(readTable(store.folder, network, 'nodes', ['handle', 'name', 'messages'], nodes));
  return {
    ...body,
    quoted: await readMessagesById(store, [...new Set(named)]),
    names: Object.fromEntries(nodes.map((node, i) => [node, labels[i]])),
  };
}

/** The messages that a number of a portrait counts, in the order of time; null where there are no messages behind the network. */
export async function readGroupMessages(
  store: Store,
  { network: id, query }: { readonly network: string; readonly query: GroupMessagesQuery },
): Promise<MessagePage | null> {
  const network = await findNetwork(store, id);
  const evidence = network && (await evidenceOf(store, network));
  if (!evidence) return null;
  if (query.way !== undefined) return evidence.messages({ ties: tiesAsked(store, network, query) }, query);
  const groups = groupAndRest(store, network, evidence, query);
  const wanted = query.elsewhere === 'true' ? 1 : 0;
  const isWanted = (message: number): boolean => {
    const own = groups.of(message);
    return wanted === 0 ? own.includes(0) : own.length > 0 && !own.includes(0);
  };
  const { thing, label, kind, day, answers, offset, limit } = query;
  const parents = answers === undefined ? null : new Map(answersTo(store.raw));
  const isAnswer = (message: number): boolean =>
    parents === null || (parents.has(message) && groups.of(parents.get(message)!).includes(0));
  const all =
    thing !== undefined && label !== undefined
      ? (await messagesWith(store, thing, label)).filter(isWanted)
      : [...groups.messagesOf(wanted)].filter(isWanted);
  return pageOf(store, all.filter(isAnswer), { kind, day, offset, limit });
}

/** The messages of a group, or of a node of it, as 0, those of all other nodes of the network as 1. */
function groupAndRest(
  store: Store,
  network: Network,
  evidence: Evidence,
  { column, group, node }: GroupMessagesQuery,
): MessageGroups {
  const groupOf = readGroups(store, network, column);
  const isOne = (v: number): boolean => groupOf(v) === group && (node === undefined || node === v);
  return evidence.grouped(
    Int32Array.from({ length: network.nodes }, (_, v) => (isOne(v) ? 0 : 1)),
    2,
  );
}

/** The ties of a node, or between two groups, that are asked for; self-ties are none. */
function tiesAsked(
  store: Store,
  network: Network,
  { column, group, node, towards, way }: GroupMessagesQuery,
): Tie[] {
  const groupOf = readGroups(store, network, column);
  const { source, target } = readTies(store, network.id);
  const goes = (a: number, b: number): boolean =>
    node === undefined
      ? groupOf(a) === group && groupOf(b) === towards
      : a === node && (way !== 'across' || groupOf(b) !== group) && (way !== 'with' || groupOf(b) === group);
  const isWanted = (a: number, b: number): boolean =>
    (way !== 'in' && goes(a, b)) || (way !== 'out' && goes(b, a));
  const ties: Tie[] = [];
  source.forEach((a, e) => {
    if (a !== target[e] && isWanted(a, target[e])) ties.push({ source: a, target: target[e] });
  });
  return ties;
}

function readGroups(store: Store, network: Network, column: string): (node: number) => string {
  const nodes = readTable(store.folder, network.id, 'nodes', [column]);
  const values = column in nodes ? nodes[column] : [];
  return (node) => String(values[node] ?? '');
}

/** The messages in which a thing stands, each once. */
export async function messagesWith(store: Store, thing: PortraitThing, label: string): Promise<number[]> {
  const { occurrences, labelOf } = await readPortraitThings(store, thing);
  const is = new Map<number, boolean>();
  const found = new Set<number>();
  for (let i = 0; i < occurrences.count; i++) {
    const at = occurrences.thing[i];
    let isIt = is.get(at);
    if (isIt === undefined) is.set(at, (isIt = labelOf(at) === label));
    if (isIt) found.add(occurrences.message[i]);
  }
  return [...found];
}
