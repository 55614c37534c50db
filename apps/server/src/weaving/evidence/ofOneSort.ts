import type { Network } from '@pebble/contract';
import { numbersOf, tiesBehind, tiesThrough } from '@pebble/core';
import { readTable } from '../../storage/files/tables';
import type { Store } from '../../storage/open';
import type { Evidence } from './evidence';
import { readTies } from './ties';

/** One sort of nodes: what ties them to those nodes of the other sort that they share. */
export function oneSortEvidence(store: Store, { id }: Network, inner: Network, evidence: Evidence): Evidence {
  const place = numbersOf(readTable(store.folder, id, 'evidence'), 'node');
  const places = (nodes: readonly number[]): number[] => nodes.map((node) => place[node]);
  return {
    messages(behind, page) {
      if ('nodes' in behind) return evidence.messages({ nodes: places(behind.nodes) }, page);
      const pairs = behind.ties.map((tie) => ({ source: place[tie.source], target: place[tie.target] }));
      return evidence.messages({ ties: tiesBehind(readTies(store, inner.id), pairs) }, page);
    },
    grouped(groupOf, groups) {
      const within = new Int32Array(inner.nodes).fill(-1);
      place.forEach((at, node) => (within[at] = groupOf[node]));
      return evidence.grouped(within, groups);
    },
    async tiesOf(message) {
      const node = new Map(Array.from(place, (at, v) => [at, v]));
      const made = tiesThrough(readTies(store, inner.id), await evidence.tiesOf(message), (at) =>
        node.has(at),
      );
      const { source, target } = readTies(store, id);
      const known = new Set(
        made.map(([a, b]) => [node.get(a)!, node.get(b)!].sort((x, y) => x - y).join(' ')),
      );
      const all = Array.from(source, (a, e) => ({ source: a, target: target[e] }));
      return all.filter((tie) => known.has(`${tie.source} ${tie.target}`));
    },
    dailyTieCounts: () => Promise.resolve(null),
  };
}
