import { computeFormula, counted, FormulaError, joinWith, type Computed, isTakenColumn } from '@pebble/core';
import { addOwnColumns, findNetwork } from '../../storage/networks';
import { readTable } from '../../storage/files/tables';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Result extends Record<string, unknown> {
  readonly network: string;
  readonly column: string;
  readonly uses: readonly string[];
  readonly without: number;
}

/** Computes a column of the nodes by a formula over other columns. */
export const computeColumn: StepDefinition<'compute-column', Result> = {
  kind: 'compute-column',
  async run({ store, files }, { network, name, formula }) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    if (isTakenColumn(name))
      throw new StepRefused(`The nodes have a column “${name}” already. Choose another name.`);
    const nodes = readTable(store.folder, network, 'nodes');
    const { values, uses, without } = refused(() =>
      computeFormula(formula, nodes, found.columns, found.nodes),
    );
    files.table(network, 'nodes', { ...nodes, [name]: values });
    await addOwnColumns(store, network, [
      { name, title: name, type: 'number', how: `Computed as ${formula}` },
    ]);
    return { network, column: name, uses, without };
  },
  describe({ name, formula }, result) {
    if (!result) return `A column “${name}” was to be computed as ${formula}.`;
    const from = result.uses.length > 0 ? ` from ${joinWith('and', result.uses)}` : '';
    const without = result.without > 0 ? `; ${counted(result.without, 'node')} had no value` : '';
    return `Of every node “${name}” was computed${from} as ${formula}${without}.`;
  },
};

function refused(work: () => Computed): Computed {
  try {
    return work();
  } catch (error) {
    if (error instanceof FormulaError) throw new StepRefused(`${error.message} Nothing was computed.`);
    throw error;
  }
}
