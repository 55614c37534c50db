import { numbersOf } from '@pebble/core';
import type { Store } from '../storage/open';
import { readTable } from '../storage/files/tables';

/** What tells the nodes of networks of one recipe apart: their number, and their sort where there are two. */
export function nodeKeys({ folder }: Pick<Store, 'folder'>, network: string): string[] {
  const nodes = readTable(folder, network, 'nodes', ['id', 'mode']);
  const mode = 'mode' in nodes ? nodes['mode'] : null;
  return Array.from(numbersOf(nodes, 'id'), (id, v) => `${mode === null ? '' : String(mode[v])} ${id}`);
}
