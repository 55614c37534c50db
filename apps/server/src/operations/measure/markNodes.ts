import { counted } from '@pebble/core';
import { StepRefused } from '../../errors/stepErrors';
import { findNetwork } from '../../storage/networks';
import type { StepDefinition } from '../step';
import { setByHand } from './setByHand';

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
  async run(context, { network, nodes: chosen, column, value }) {
    const found = await findNetwork(context.store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    if (chosen.some((v) => v >= found.nodes))
      throw new StepRefused(`There are ${found.nodes} nodes. Nothing was changed.`);
    const changed = await setByHand(context, found, chosen, column, value);
    return { network, column, nodes: chosen.length, changed };
  },
  describe({ column, value, nodes }, result) {
    if (nodes.length === 0) return `A category “${column}” was made, to be set by hand.`;
    const count = counted(result?.nodes ?? nodes.length, 'chosen node');
    return value === ''
      ? `The value of “${column}” was taken from ${count}.`
      : `“${column}” of ${count} was set to “${value}” by hand.`;
  },
};
