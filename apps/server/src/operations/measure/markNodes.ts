import { counted, SET_BY_HAND, textsIn, isTakenColumn } from '@pebble/core';
import { addOwnColumns, findNetwork } from '../../storage/networks';
import { readTable } from '../../storage/files/tables';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Marked extends Record<string, unknown> {
  readonly network: string;
  readonly column: string;
  readonly nodes: number;
  /** Nodes that had another value before. */
  readonly changed: number;
}

/** Gives chosen nodes a value of a category of one's own, which is made where it is not there yet. */
export const markNodes: StepDefinition<'mark-nodes', Marked> = {
  kind: 'mark-nodes',
  async run({ store, files }, { network, nodes: chosen, column, value }) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    const known = found.columns.find(({ name }) => name === column);
    // What a method found, or a table told, is not written over.
    if (isTakenColumn(column) || (known && known.how !== SET_BY_HAND))
      throw new StepRefused(
        `“${column}” was not set by hand (${known?.how ?? 'it is computed'}). Choose another name; nothing was changed.`,
      );
    if (chosen.some((v) => v >= found.nodes))
      throw new StepRefused(`There are ${found.nodes} nodes. Nothing was changed.`);
    const nodes = readTable(store.folder, network, 'nodes');
    const before = column in nodes ? textsIn(nodes[column]) : new Array<string>(found.nodes).fill('');
    const after = [...before];
    for (const v of chosen) after[v] = value;
    files.table(network, 'nodes', { ...nodes, [column]: after });
    if (!known)
      await addOwnColumns(store, network, [
        { name: column, title: column, type: 'category', how: SET_BY_HAND },
      ]);
    return {
      network,
      column,
      nodes: chosen.length,
      changed: chosen.filter((v) => before[v] !== value).length,
    };
  },
  describe({ column, value, nodes }, result) {
    if (nodes.length === 0) return `A category “${column}” was made, to be set by hand.`;
    const count = counted(result?.nodes ?? nodes.length, 'chosen node');
    return value === ''
      ? `The value of “${column}” was taken from ${count}.`
      : `“${column}” of ${count} was set to “${value}” by hand.`;
  },
};
