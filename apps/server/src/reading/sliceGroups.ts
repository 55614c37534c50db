import { createHash } from 'node:crypto';
import { groupCodes, type SliceGroups } from '@pebble/core';
import { readTable } from '../storage/files/tables';
import type { Store } from '../storage/open';
import { groupsHash } from './groupsOf';
import { nodeKeys } from './nodeKeys';

/** The groups of networks whose nodes are the same ones, with a number for each node that holds in all. */
export interface NumberedSlices {
  readonly slices: readonly SliceGroups[];
  readonly nodeCount: number;
}

/** Reads the groups of a column, slice by slice; null for one that does not have the column. */
export function readSliceGroups(
  store: Store,
  networks: readonly string[],
  column: string,
): { readonly numbered: NumberedSlices; readonly without: readonly string[] } {
  const numbers = new Map<string, number>();
  const without: string[] = [];
  const slices = networks.map((network): SliceGroups => {
    const node = nodeKeys(store, network).map((key) => {
      const known = numbers.get(key);
      if (known !== undefined) return known;
      numbers.set(key, numbers.size);
      return numbers.size - 1;
    });
    const nodes = readTable(store.folder, network, 'nodes', [column]);
    if (!(column in nodes)) {
      without.push(network);
      return { node, group: new Int32Array(node.length).fill(-1), groups: 0 };
    }
    const { of, names } = groupCodes(nodes[column]);
    const group = Int32Array.from(of, (g) => (names[g] === '' ? -1 : g));
    return { node, group, groups: names.length };
  });
  return { numbered: { slices, nodeCount: numbers.size }, without };
}

/** A hash that is another one as soon as any node of any slice is in another group. */
export function sliceGroupsHash({ folder }: Store, networks: readonly string[], column: string): string {
  const hash = createHash('sha256');
  for (const network of networks) {
    const nodes = readTable(folder, network, 'nodes', [column]);
    hash.update(`${network} ${column in nodes ? groupsHash(nodes[column]) : ''}\n`);
  }
  return hash.digest('hex');
}
