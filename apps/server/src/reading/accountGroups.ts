import { kindOf, numbersOf, textsIn } from '@pebble/core';
import { readTable } from '../storage/files/tables';
import { findNetwork } from '../storage/networks';
import type { Store } from '../storage/open';

/** The accounts of a network, by their numbers after tidying. */
export interface AccountsInNetwork {
  /** Place in the node table. */
  readonly nodeOf: ReadonlyMap<number, number>;
  /** Value of a column; empty for an account without a group. */
  readonly groupOf: ReadonlyMap<number, string>;
}

/** Which accounts a network has, and their groups; none where its nodes are something else. */
export async function accountsIn(store: Store, id: string, column: string): Promise<AccountsInNetwork> {
  const network = await findNetwork(store, id);
  const nodeOf = new Map<number, number>();
  const groupOf = new Map<number, string>();
  if (!network?.weave || !kindOf(network.weave).sorts(network.weave).accounts) return { nodeOf, groupOf };
  const nodes = readTable(store.folder, id, 'nodes');
  const modes = 'mode' in nodes ? textsIn(nodes['mode']) : null;
  const groups = column in nodes ? textsIn(nodes[column]) : null;
  Array.from(numbersOf(nodes, 'id')).forEach((account, v) => {
    // Where there are two sorts of nodes, accounts come first.
    if (modes && modes[v] !== modes[0]) return;
    nodeOf.set(account, v);
    groupOf.set(account, groups?.[v] ?? '');
  });
  return { nodeOf, groupOf };
}
