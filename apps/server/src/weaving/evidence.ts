import type { AccountWeave, Decision, EvidenceQuery, MessagePage, Network, Portrait } from '@pebble/contract';
import {
  messagesOfNode,
  messagesOfTie,
  numbersOf,
  sharedPartners,
  tiesOfMessage,
  tiesThrough,
  type EvidenceRows,
  type TwoSorts,
} from '@pebble/core';
import { decisionsOf } from '../db/decisions';
import { readEvidence, readMessageTies, readPortrait } from '../db/evidence';
import { readMessagesById } from '../db/messages';
import { findNetwork } from '../db/networks';
import type { Store } from '../db/open';
import { readTable } from '../files/tables';
import { tidyAccounts } from './tidied';

/** Nodes of a network, or the ties between two sets of them. */
export type Behind =
  | { readonly nodes: readonly number[] }
  | { readonly source: readonly number[]; readonly target: readonly number[] };

type Ties = Pick<TwoSorts, 'source' | 'target'>;
type Page = Pick<EvidenceQuery, 'offset' | 'limit'>;

/** Finds the messages behind a network's nodes and ties. */
export interface Evidence {
  messages(behind: Behind, page: Page): Promise<MessagePage>;
  portrait(community: number, nodes: readonly number[]): Promise<Portrait>;
  /** Ties that a message helps to make, as pairs of nodes. */
  tiesOf(message: number): Promise<{ source: number; target: number }[]>;
}

/** What stands behind a network; null for one without messages: of a file, or of follower lists. */
export async function evidenceOf(store: Store, network: Network): Promise<Evidence | null> {
  const { weave } = network;
  if (weave === null) return null;
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
          : { from: accounts(behind.source), to: accounts(behind.target), both: !directed },
        page,
      ),
    portrait: (community, nodes) =>
      readPortrait(store, study, community, nodes.length, { accounts: accounts(nodes), weave }),
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
  const messagesOf = (behind: Behind): number[] => {
    if ('nodes' in behind) return distinct(behind.nodes.flatMap((node) => messagesOfNode(rows, node)));
    const [from, to] = [new Set(behind.source), new Set(behind.target)];
    if (from.size === 1 && to.size === 1)
      return messagesOfTie(rows, behind.source[0], behind.target[0], window);
    const { source, target } = edges();
    const between = Array.from(source.keys()).filter(
      (e) => (from.has(source[e]) && to.has(target[e])) || (from.has(target[e]) && to.has(source[e])),
    );
    return distinct(between.flatMap((e) => messagesOfTie(rows, source[e], target[e], window)));
  };
  return {
    async messages(behind, { offset, limit }) {
      const all = messagesOf(behind);
      const messages = await readMessagesById(store, all.slice(offset, offset + limit));
      return { total: all.length, offset, messages };
    },
    portrait: (community, nodes) =>
      readPortrait(store, study, community, nodes.length, { messages: messagesOf({ nodes }) }),
    tiesOf(message) {
      const { source, target } = edges();
      return Promise.resolve(tiesOfMessage(rows, message, source, target));
    },
  };
}

/** Groups of a network: what stands behind their nodes, and behind the ties between these. */
function groupEvidence(store: Store, { id }: Network, inner: Network, evidence: Evidence): Evidence {
  const groupOf = numbersOf(readTable(store.folder, id, 'evidence'), 'node');
  const members = (groups: readonly number[]): number[] => {
    const wanted = new Set(groups);
    return Array.from(groupOf.keys()).filter((node) => wanted.has(groupOf[node]));
  };
  return {
    messages: (behind, page) =>
      evidence.messages(
        'nodes' in behind
          ? { nodes: members(behind.nodes) }
          : { source: members(behind.source), target: members(behind.target) },
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
      const ends = [places(behind.source), places(behind.target)] as const;
      const shared = sharedPartners(ties(inner.id), ...ends);
      return evidence.messages({ source: ends.flat(), target: shared }, page);
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
  };
}

function distinct(messages: readonly number[]): number[] {
  return [...new Set(messages)];
}
