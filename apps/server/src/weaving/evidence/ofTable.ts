import type { Network } from '@pebble/contract';
import {
  countTiesByDay,
  MessageGroups,
  messagesOfNode,
  messagesOfTie,
  messagesOfTies,
  tiesOfMessage,
  type EvidenceRows,
  type Tie,
} from '@pebble/core';
import { readTable } from '../../storage/files/tables';
import { lastMessage, readMessagesById } from '../../storage/messages';
import type { Store } from '../../storage/open';
import type { Behind, Evidence } from './evidence';
import { readTies } from './ties';

/**
 * Weaves that keep with the network which messages stand behind it.
 * @param window messages of one tie stand within so many milliseconds; null for any
 */
export function tableEvidence(store: Store, { id }: Network, window: number | null = null): Evidence {
  const rows = readTable(store.folder, id, 'evidence') as unknown as EvidenceRows;
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
    grouped(groupOf, groups) {
      const found = new MessageGroups(groups, lastMessage(store));
      for (let i = 0; i < rows.node.length; i++) {
        const group = groupOf[rows.node[i]];
        if (group >= 0 && group < groups) found.add(rows.message[i], group);
      }
      return found;
    },
    tiesOf(message) {
      const { source, target } = readTies(store, id);
      return Promise.resolve(tiesOfMessage(rows, message, source, target));
    },
    dailyTieCounts() {
      const { source, target } = readTies(store, id);
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

function distinct(messages: readonly number[]): number[] {
  return [...new Set(messages)];
}

/** The same for a kind of weave whose messages need no time between them. */
export const keptEvidence = (store: Store, network: Network): Promise<Evidence> =>
  Promise.resolve(tableEvidence(store, network));
