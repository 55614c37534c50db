import type { AccountWeave, Decision, MessagePage, Network, Portrait } from '@pebble/contract';
import {
  addressTies,
  countTiesByDay,
  countsBothWays,
  messagesAround,
  messagesOfNode,
  messagesOfTie,
  messagesOfTies,
  PairTable,
  numbersOf,
  takenAddresses,
  tidyAddresses,
  tiesBehind,
  tiesOfMessage,
  tiesThrough,
  type EvidenceRows,
  type Tie,
  type DailyTieCounts,
  type TwoSorts,
} from '@pebble/core';
import { decisionsOf } from '../storage/decisions';
import { readAddresses } from '../storage/addresses';
import {
  type Candidates,
  type EvidencePage,
  type Period,
  readAddressRows,
  readMessageRows,
  readPortrait,
} from '../storage/evidence';
import { readMessagesById } from '../storage/messages';
import { findNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { readTaken } from '../storage/taken';
import { readTable } from '../storage/files/tables';
import { tidyAccounts } from './tidied';

/** Nodes of a network, or some of its ties. */
export type Behind = { readonly nodes: readonly number[] } | { readonly ties: readonly Tie[] };

const ENDS = ['source', 'target'];
type Ties = Pick<TwoSorts, 'source' | 'target'>;

/** Finds the messages behind a network's nodes and ties. */
export interface Evidence {
  messages(behind: Behind, page: EvidencePage): Promise<MessagePage>;
  portrait(community: number, nodes: readonly number[]): Promise<Portrait>;
  /** Ties that a message helps to make, as pairs of nodes. */
  tiesOf(message: number): Promise<Tie[]>;
  /** When the messages of each tie were written; null where that would have to be asked tie by tie. */
  dailyTieCounts(): Promise<DailyTieCounts | null>;
}

/** What stands behind a network; null for one without messages: of a file, or of follower lists. */
export async function evidenceOf(store: Store, network: Network): Promise<Evidence | null> {
  const { weave, changed } = network;
  if (weave === null) return null;
  if (changed) {
    // What stands behind nodes stands behind those that they became.
    const inner = await findNetwork(store, changed.of);
    const evidence = inner && (await evidenceOf(store, inner));
    return evidence && groupEvidence(store, network, inner, evidence);
  }
  switch (weave.what) {
    case 'follows':
      return null;
    case 'accounts':
      return accountEvidence(store, network, weave, await decisionsOf(store, network.id));
    case 'groups': {
      const inner = await findNetwork(store, weave.network);
      const evidence = inner && (await evidenceOf(store, inner));
      return evidence && groupEvidence(store, network, inner, evidence);
    }
    case 'projection': {
      const inner = await findNetwork(store, weave.network);
      const evidence = inner && (await evidenceOf(store, inner));
      return evidence && oneSortEvidence(store, network, inner, evidence);
    }
    default:
      return tableEvidence(store, network, weave.what === 'in-step' ? weave.seconds * 1000 : null);
  }
}

/** Accounts by address: what their messages tie is said by the rule by which they were woven. */
function accountEvidence(
  store: Store,
  { id, directed }: Network,
  weave: AccountWeave,
  decisions: readonly Decision[],
): Evidence {
  const scope = { weave };
  const tidy = tidyAccounts(store, decisions);
  const ids = numbersOf(readTable(store.folder, id, 'nodes', ['id']), 'id');
  const members = (nodes: readonly number[]): number[] => nodes.flatMap((node) => tidy.membersOf(ids[node]));
  const bothWays = !directed && countsBothWays(weave);
  const edges = once(() => readTable(store.folder, id, 'edges', ENDS) as unknown as Ties);
  const edgeOf = once(() => edgeFinder(edges(), directed));
  const nodeOf = once(() => new Map(Array.from(ids, (account, i) => [account, i])));
  /** The tie of the network that a message makes, where it is one: of a direction that does not count nothing is told. */
  const madeBy = (from: number, to: number): number | undefined => {
    const [a, b] = [nodeOf().get(from), nodeOf().get(to)];
    const edge = a === undefined || b === undefined ? undefined : edgeOf()(a, b);
    return edge !== undefined && (directed || bothWays || edges().source[edge] === a) ? edge : undefined;
  };
  const behindTies = (ties: readonly Tie[], within: Period): Found => {
    const wanted = new Set(ties.map(({ source, target }) => edgeOf()(source, target)));
    wanted.delete(undefined);
    const known = [...wanted].map((e) => ({ source: edges().source[e!], target: edges().target[e!] }));
    const ways = bothWays ? known.flatMap((tie) => [tie, { source: tie.target, target: tie.source }]) : known;
    const rows = readAddressRows(store, scope, candidatesOf(ways, members), within);
    const made = addressTies(tidyAddresses(rows, tidy.now), weave);
    const kept = [...made.message.keys()].filter((i) => wanted.has(madeBy(made.from[i], made.to[i])));
    return distinctMessages(
      kept.map((i) => made.message[i]),
      kept.map((i) => made.time[i]),
    );
  };
  const behindNodes = (nodes: readonly number[], within: Period): Found => {
    const accounts = members(nodes);
    const own = new Set(nodes.map((node) => ids[node]));
    const rows = readAddressRows(store, scope, { authors: accounts, addressed: accounts }, within);
    const found = messagesAround(tidyAddresses(rows, tidy.now), weave, (account) => own.has(account));
    return distinctMessages(found.message, found.time);
  };
  return {
    async messages(behind, { offset, limit, from = null, until = null }) {
      const within = { from, until };
      const found = 'nodes' in behind ? behindNodes(behind.nodes, within) : behindTies(behind.ties, within);
      return {
        total: found.length,
        offset,
        messages: await readMessagesById(store, found.slice(offset, offset + limit)),
      };
    },
    portrait: (community, nodes) =>
      readPortrait(store, community, nodes.length, { accounts: members(nodes), weave }),
    dailyTieCounts() {
      const taken = readTaken(store, weave);
      const all = readAddresses(store);
      const rows = tidyAddresses(taken ? takenAddresses(all, taken).rows : all, tidy.now);
      const made = addressTies(rows, weave);
      const edge: number[] = [];
      const time: number[] = [];
      for (let i = 0; i < made.message.length; i++) {
        const found = madeBy(made.from[i], made.to[i]);
        if (found === undefined) continue;
        edge.push(found);
        time.push(made.time[i]);
      }
      return Promise.resolve(countTiesByDay(edge, time));
    },
    tiesOf(message) {
      const made = addressTies(tidyAddresses(readMessageRows(store, scope, message), tidy.now), weave);
      const found = new Set(made.from.map((from, i) => madeBy(from, made.to[i])));
      found.delete(undefined);
      return Promise.resolve(
        [...found].map((e) => ({ source: edges().source[e!], target: edges().target[e!] })),
      );
    },
  };
}

/** Numbers of messages in the order of their time. */
type Found = readonly number[];

/** Which messages may stand behind ties: those from one end to the other; of a self-tie all of its node, since they may address nobody. */
function candidatesOf(ties: readonly Tie[], members: (nodes: readonly number[]) => number[]): Candidates {
  const selves = ties.filter(({ source, target }) => source === target).map(({ source }) => source);
  return {
    pairs: ties.flatMap(({ source, target }) => {
      const to = members([target]);
      return members([source]).flatMap((a) => to.map((b) => [a, b] as const));
    }),
    authors: members(selves),
  };
}

/** Each message once, dated ones first and by their date. */
function distinctMessages(message: readonly number[], time: readonly number[]): Found {
  const at = new Map(message.map((one, i) => [one, time[i]]));
  return [...at]
    .sort(([a, s], [b, t]) => Number(Number.isNaN(s)) - Number(Number.isNaN(t)) || s - t || a - b || 0)
    .map(([one]) => one);
}

/** A value that is made when it is first asked for. */
function once<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}

/** Weaves that keep with the network which messages stand behind it. */
function tableEvidence(store: Store, { id }: Network, window: number | null): Evidence {
  const rows = readTable(store.folder, id, 'evidence') as unknown as EvidenceRows;
  const edges = (): Ties => readTable(store.folder, id, 'edges', ENDS) as unknown as Ties;
  let times: ReadonlyMap<number, number> | null = null;
  const timeOf = (): ReadonlyMap<number, number> =>
    (times ??= new Map(Array.from(rows.message, (message, i) => [message, rows.time[i]])));
  const messagesOf = (behind: Behind): number[] => {
    if ('nodes' in behind) return distinct(behind.nodes.flatMap((node) => messagesOfNode(rows, node)));
    const [only] = behind.ties;
    if (behind.ties.length === 1) return messagesOfTie(rows, only.source, only.target, window);
    const ends = (end: keyof Tie): number[] => behind.ties.map((tie) => tie[end]);
    return messagesOfTies(rows, { source: ends('source'), target: ends('target') }, window);
  };
  return {
    async messages(behind, { offset, limit, from = null, until = null }) {
      const isWithin = (message: number): boolean => {
        const time = timeOf().get(message)!;
        return (from === null || time >= from) && (until === null || time < until);
      };
      const isAnyTime = from === null && until === null;
      const all = messagesOf(behind).filter((message) => isAnyTime || isWithin(message));
      const messages = await readMessagesById(store, all.slice(offset, offset + limit));
      return { total: all.length, offset, messages };
    },
    portrait: (community, nodes) =>
      readPortrait(store, community, nodes.length, { messages: messagesOf({ nodes }) }),
    tiesOf(message) {
      const { source, target } = edges();
      return Promise.resolve(tiesOfMessage(rows, message, source, target));
    },
    dailyTieCounts() {
      const { source, target } = edges();
      const edge: number[] = [];
      const time: number[] = [];
      for (let e = 0; e < source.length; e++)
        for (const message of messagesOfTie(rows, source[e], target[e], window)) {
          edge.push(e);
          time.push(timeOf().get(message)!);
        }
      return Promise.resolve(countTiesByDay(edge, time));
    },
  };
}

/** Groups of a network: what stands behind their nodes, and behind those ties between these that make a tie of groups. */
function groupEvidence(store: Store, { id }: Network, inner: Network, evidence: Evidence): Evidence {
  const groupOf = numbersOf(readTable(store.folder, id, 'evidence'), 'node');
  const members = (groups: readonly number[]): number[] => {
    const wanted = new Set(groups);
    return Array.from(groupOf.keys()).filter((node) => wanted.has(groupOf[node]));
  };
  const tiesWithin = (ties: readonly Tie[]): Tie[] => {
    const found = edgeFinder(readTable(store.folder, id, 'edges', ENDS) as unknown as Ties, inner.directed);
    const wanted = new Set(ties.map(({ source, target }) => found(source, target)));
    // Of two groups without a tie nothing stands behind it.
    wanted.delete(undefined);
    const { source, target } = readTable(store.folder, inner.id, 'edges', ENDS) as unknown as Ties;
    return Array.from(source, (a, e) => ({ source: a, target: target[e] })).filter((tie) =>
      wanted.has(found(groupOf[tie.source], groupOf[tie.target])),
    );
  };
  return {
    messages: (behind, page) =>
      evidence.messages(
        'nodes' in behind ? { nodes: members(behind.nodes) } : { ties: tiesWithin(behind.ties) },
        page,
      ),
    portrait: (community, groups) => evidence.portrait(community, members(groups)),
    async tiesOf(message) {
      const { source, target } = readTable(store.folder, id, 'edges') as unknown as Record<
        string,
        Uint32Array
      >;
      const known = new Set(Array.from(source, (a, e) => `${a} ${target[e]}`));
      const pairs = (await evidence.tiesOf(message)).map(({ source: a, target: b }) => {
        const ends = [groupOf[a], groupOf[b]];
        const [from, to] = inner.directed ? ends : ends.sort((x, y) => x - y);
        return { source: from, target: to };
      });
      const once = new Map(pairs.map((pair) => [`${pair.source} ${pair.target}`, pair]));
      return [...once].filter(([key]) => known.has(key)).map(([, pair]) => pair);
    },
    async dailyTieCounts() {
      const within = await evidence.dailyTieCounts();
      if (!within) return null;
      const { source, target } = readTable(store.folder, inner.id, 'edges', ENDS) as unknown as Ties;
      const ties = edgeFinder(readTable(store.folder, id, 'edges', ENDS) as unknown as Ties, inner.directed);
      const edge: number[] = [];
      const time: number[] = [];
      for (let i = 0; i < within.edge.length; i++) {
        const e = within.edge[i];
        const found = ties(groupOf[source[e]], groupOf[target[e]]);
        if (found === undefined) continue;
        for (let m = 0; m < within.messages[i]; m++) {
          edge.push(found);
          time.push(within.day[i]);
        }
      }
      return countTiesByDay(edge, time);
    },
  };
}

/** One sort of nodes: what ties them to those nodes of the other sort that they share. */
function oneSortEvidence(store: Store, { id }: Network, inner: Network, evidence: Evidence): Evidence {
  const place = numbersOf(readTable(store.folder, id, 'evidence'), 'node');
  const places = (nodes: readonly number[]): number[] => nodes.map((node) => place[node]);
  const ties = (network: string): Ties => readTable(store.folder, network, 'edges', ENDS) as unknown as Ties;
  return {
    messages(behind, page) {
      if ('nodes' in behind) return evidence.messages({ nodes: places(behind.nodes) }, page);
      const pairs = behind.ties.map((tie) => ({ source: place[tie.source], target: place[tie.target] }));
      return evidence.messages({ ties: tiesBehind(ties(inner.id), pairs) }, page);
    },
    portrait: (community, nodes) => evidence.portrait(community, places(nodes)),
    async tiesOf(message) {
      const node = new Map(Array.from(place, (at, v) => [at, v]));
      const made = tiesThrough(ties(inner.id), await evidence.tiesOf(message), (at) => node.has(at));
      const { source, target } = ties(id);
      const known = new Set(
        made.map(([a, b]) => [node.get(a)!, node.get(b)!].sort((x, y) => x - y).join(' ')),
      );
      const all = Array.from(source, (a, e) => ({ source: a, target: target[e] }));
      return all.filter((tie) => known.has(`${tie.source} ${tie.target}`));
    },
    dailyTieCounts: () => Promise.resolve(null),
  };
}

/** Finds the edge between two nodes by its ends, either way round where ties have no direction. */
function edgeFinder(
  { source, target }: Ties,
  directed: boolean,
): (a: number, b: number) => number | undefined {
  const pairs = new PairTable(0);
  const turned = (a: number, b: number): boolean => !directed && a > b;
  // Each pair of ends is one tie, so that its number is its place.
  for (let e = 0; e < source.length; e++)
    if (turned(source[e], target[e])) pairs.find(target[e], source[e]);
    else pairs.find(source[e], target[e]);
  return (a, b) => (turned(a, b) ? pairs.at(b, a) : pairs.at(a, b));
}

function distinct(messages: readonly number[]): number[] {
  return [...new Set(messages)];
}
