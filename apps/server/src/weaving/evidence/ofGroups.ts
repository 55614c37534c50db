import type { Network } from '@pebble/contract';
import { countTiesByDay, numbersOf, type Tie } from '@pebble/core';
import { readTable } from '../../storage/files/tables';
import type { Store } from '../../storage/open';
import type { Evidence } from './evidence';
import { edgeFinder, readTies } from './ties';

/** Groups of a network: what stands behind their nodes, and behind those ties between these that make a tie of groups. */
export function groupEvidence(store: Store, { id }: Network, inner: Network, evidence: Evidence): Evidence {
  const groupOf = numbersOf(readTable(store.folder, id, 'evidence'), 'node');
  const members = (groups: readonly number[]): number[] => {
    const wanted = new Set(groups);
    return Array.from(groupOf.keys()).filter((node) => wanted.has(groupOf[node]));
  };
  const tiesWithin = (ties: readonly Tie[]): Tie[] => {
    const found = edgeFinder(readTies(store, id), inner.directed);
    const wanted = new Set(ties.map(({ source, target }) => found(source, target)));
    // Of two groups without a tie nothing stands behind it.
    wanted.delete(undefined);
    const { source, target } = readTies(store, inner.id);
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
    grouped: (group, groups) =>
      evidence.grouped(
        Int32Array.from(groupOf, (node) => group[node] ?? -1),
        groups,
      ),
    async tiesOf(message) {
      const { source, target } = readTies(store, id);
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
      const { source, target } = readTies(store, inner.id);
      const ties = edgeFinder(readTies(store, id), inner.directed);
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
