import type { AccountWeave, Decision, MessagePage, Network, Portrait } from '@pebble/contract';
import {
  countMoments,
  messagesOfNode,
  messagesOfTie,
  numbersOf,
  tiesBehind,
  tiesOfMessage,
  tiesThrough,
  type EvidenceRows,
  type Tie,
  type TieMoments,
  type TwoSorts,
} from '@pebble/core';
import { decisionsOf } from '../db/decisions';
import {
  readAddressTimes,
  readEvidence,
  type EvidencePage,
  readMessageTies,
  readPortrait,
} from '../db/evidence';
import { readMessagesById } from '../db/messages';
import { findNetwork } from '../db/networks';
import type { Store } from '../db/open';
import { readTable } from '../files/tables';
import { tidyAccounts } from './tidied';

/** Nodes of a network, or some of its ties. */
export type Behind = { readonly nodes: readonly number[] } | { readonly ties: readonly Tie[] };

type Ties = Pick<TwoSorts, 'source' | 'target'>;

/** Finds the messages behind a network's nodes and ties. */
export interface Evidence {
  messages(behind: Behind, page: EvidencePage): Promise<MessagePage>;
  portrait(community: number, nodes: readonly number[]): Promise<Portrait>;
  /** Ties that a message helps to make, as pairs of nodes. */
  tiesOf(message: number): Promise<Tie[]>;
  /** When the messages of each tie were written; null where that would have to be asked tie by tie. */
  moments(): Promise<TieMoments | null>;
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

/** Accounts by address: the table of addresses says it. */
function accountEvidence(
  store: Store,
  { id, study, directed }: Network,
  weave: AccountWeave,
  decisions: readonly Decision[],
): Evidence {
  const scope = { study, weave };
  const tidy = tidyAccounts(store, study, decisions);
  const ids = numbersOf(readTable(store.folder, id, 'nodes'), 'id');
  const accounts = (nodes: readonly number[]): number[] => nodes.flatMap((node) => tidy.membersOf(ids[node]));
  return {
    messages: (behind, page) =>
      readEvidence(
        store,
        scope,
        'nodes' in behind
          ? { accounts: accounts(behind.nodes) }
          : {
              pairs: behind.ties.flatMap(({ source, target }) => {
                const to = accounts([target]);
                return accounts([source]).flatMap((a) => to.map((b) => [a, b] as const));
              }),
              both: !directed,
            },
        page,
      ),
    portrait: (community, nodes) =>
      readPortrait(store, study, community, nodes.length, { accounts: accounts(nodes), weave }),
    async moments() {
      const ties = edgeFinder(store, id, directed);
      const node = new Map(Array.from(ids, (account, i) => [account, i]));
      const nodeOf = (account: number): number => node.get(tidy.now ? tidy.now(account) : account) ?? -1;
      const edge: number[] = [];
      const time: number[] = [];
      // Of merged accounts several rows can make one message of one tie.
      let [last, own] = [-1, new Set<number>()];
      for (const row of await readAddressTimes(store, scope)) {
        if (row.message !== last) [last, own] = [row.message, new Set()];
        const found = ties(nodeOf(row.from), nodeOf(row.to));
        if (found === undefined || own.has(found)) continue;
        own.add(found);
        edge.push(found);
        time.push(row.time ?? NaN);
      }
      return countMoments(edge, time);
    },
    async tiesOf(message) {
      const node = new Map(Array.from(ids, (account, i) => [account, i]));
      const pairs = (await readMessageTies(store, scope, message)).map(({ source, target }) => ({
        source: tidy.now ? tidy.now(source) : source,
        target: tidy.now ? tidy.now(target) : target,
      }));
      return pairs.flatMap(({ source, target }) =>
        node.has(source) && node.has(target)
          ? [{ source: node.get(source)!, target: node.get(target)! }]
          : [],
      );
    },
  };
}

/** Weaves that keep with the network which messages stand behind it. */
function tableEvidence(store: Store, { id, study }: Network, window: number | null): Evidence {
  const rows = readTable(store.folder, id, 'evidence') as unknown as EvidenceRows;
  const edges = (): Ties => readTable(store.folder, id, 'edges') as unknown as Ties;
  let times: ReadonlyMap<number, number> | null = null;
  const timeOf = (): ReadonlyMap<number, number> =>
    (times ??= new Map(Array.from(rows.message, (message, i) => [message, rows.time[i]])));
  const messagesOf = (behind: Behind): number[] => {
    if ('nodes' in behind) return distinct(behind.nodes.flatMap((node) => messagesOfNode(rows, node)));
    return distinct(behind.ties.flatMap(({ source, target }) => messagesOfTie(rows, source, target, window)));
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
      readPortrait(store, study, community, nodes.length, { messages: messagesOf({ nodes }) }),
    tiesOf(message) {
      const { source, target } = edges();
      return Promise.resolve(tiesOfMessage(rows, message, source, target));
    },
    moments() {
      const { source, target } = edges();
      const edge: number[] = [];
      const time: number[] = [];
      for (let e = 0; e < source.length; e++)
        for (const message of messagesOfTie(rows, source[e], target[e], window)) {
          edge.push(e);
          time.push(timeOf().get(message)!);
        }
      return Promise.resolve(countMoments(edge, time));
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
    const found = edgeFinder(store, id, inner.directed);
    const wanted = new Set(ties.map(({ source, target }) => found(source, target)));
    // Of two groups without a tie nothing stands behind it.
    wanted.delete(undefined);
    const { source, target } = readTable(store.folder, inner.id, 'edges') as unknown as Ties;
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
    async moments() {
      const within = await evidence.moments();
      if (!within) return null;
      const { source, target } = readTable(store.folder, inner.id, 'edges') as unknown as Ties;
      const ties = edgeFinder(store, id, inner.directed);
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
      return countMoments(edge, time);
    },
  };
}

/** One sort of nodes: what ties them to those nodes of the other sort that they share. */
function oneSortEvidence(store: Store, { id }: Network, inner: Network, evidence: Evidence): Evidence {
  const place = numbersOf(readTable(store.folder, id, 'evidence'), 'node');
  const places = (nodes: readonly number[]): number[] => nodes.map((node) => place[node]);
  const ties = (network: string): Ties => readTable(store.folder, network, 'edges') as unknown as Ties;
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
    moments: () => Promise.resolve(null),
  };
}

/** Finds the edge between two nodes by its ends, either way round where ties have no direction. */
function edgeFinder(
  store: Store,
  network: string,
  directed: boolean,
): (a: number, b: number) => number | undefined {
  const { source, target } = readTable(store.folder, network, 'edges') as unknown as Ties;
  const key = (a: number, b: number): string => (directed || a <= b ? `${a} ${b}` : `${b} ${a}`);
  const at = new Map(Array.from(source, (a, e) => [key(a, target[e]), e]));
  return (a, b) => at.get(key(a, b));
}

function distinct(messages: readonly number[]): number[] {
  return [...new Set(messages)];
}
