import type { Network } from '@pebble/contract';
import { textsIn, type TableColumns, isTakenColumn } from '@pebble/core';
import { findNetwork } from '../../storage/networks';
import type { Store } from '../../storage/open';
import { readTable } from '../../storage/files/tables';
import { StepRefused } from '../../errors/stepErrors';

/** What a new grouping is made of. */
interface GroupsToChange {
  readonly found: Network;
  readonly nodes: TableColumns;
  /** The group of each node now. */
  readonly groups: readonly string[];
}

/** The groups of a column, of which a new grouping is to be made under a name. Throws StepRefused where that cannot be. */
export async function groupsToChange(
  store: Store,
  { network, column, name }: { network: string; column: string; name: string },
): Promise<GroupsToChange> {
  const found = await findNetwork(store, network);
  if (!found) throw new StepRefused('This network is no longer there.');
  if (isTakenColumn(name))
    throw new StepRefused(`The nodes have a column “${name}” already. Choose another name.`);
  const nodes = readTable(store.folder, network, 'nodes');
  if (!(column in nodes)) throw new StepRefused(`The nodes have no column “${column}”.`);
  return { found, nodes, groups: textsIn(nodes[column]) };
}
