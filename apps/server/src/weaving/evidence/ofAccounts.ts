import type { AccountWeave, Decision, Network } from '@pebble/contract';
import {
  addressTies,
  countsBothWays,
  countTiesByDay,
  MessageGroups,
  messagesAround,
  numbersOf,
  takenAddresses,
  tidyAddresses,
  type Tie,
} from '@pebble/core';
import { readAddresses } from '../../storage/addresses';
import {
  readAddressRows,
  readMessageRows,
  writtenMessages,
  type Candidates,
  type Period,
} from '../../storage/evidence';
import { readTable } from '../../storage/files/tables';
import { lastMessage, readMessagesById } from '../../storage/messages';
import type { Store } from '../../storage/open';
import { readTaken } from '../../storage/taken';
import { tidyAccounts } from '../tidied';
import type { Evidence } from './evidence';
import { edgeFinder, readTies } from './ties';

/** Accounts by address: what their messages tie is said by the rule by which they were woven. */
export function accountEvidence(
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
  const edges = once(() => readTies(store, id));
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
    grouped(groupOf, groups) {
      const found = new MessageGroups(groups, lastMessage(store));
      for (const { message, author } of writtenMessages(store, scope)) {
        const node = nodeOf().get(tidy.now ? tidy.now(author) : author);
        const group = node === undefined ? -1 : groupOf[node];
        if (group >= 0 && group < groups) found.add(message, group);
      }
      return found;
    },
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
