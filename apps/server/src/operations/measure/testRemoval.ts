import { columnTitle, counted, formatCount, graphOf, joinWith, nodeLabels, removeNodes } from '@pebble/core';
import { findNetwork } from '../../storage/networks';
import { readTable } from '../../storage/files/tables';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Tested extends Record<string, unknown> {
  readonly network: string;
  readonly names: readonly string[];
  readonly cutOff: number;
  readonly components: { readonly before: number; readonly after: number };
  readonly largest: { readonly before: number; readonly after: number };
  /** Null where no two nodes reached each other before. */
  readonly reach: number | null;
}

/** So many nodes are named. */
const NAMED = 10;

/** Says what would be left of a network without some of its nodes. */
export const testRemoval: StepDefinition<'test-removal', Tested> = {
  kind: 'test-removal',
  async run({ store }, { network, nodes }) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    const labels = nodeLabels(readTable(store.folder, network, 'nodes'));
    const unknown = nodes.find((node) => node >= labels.length);
    if (unknown !== undefined) throw new StepRefused(`There is no node ${unknown}.`);
    const graph = graphOf(found.nodes, readTable(store.folder, network, 'edges'));
    const { cutOff, components, largest, reach } = removeNodes(graph, nodes);
    return {
      network,
      names: nodes.map((node) => labels[node]),
      cutOff: cutOff.length,
      components,
      largest,
      reach: Number.isNaN(reach) ? null : reach,
    };
  },
  describe({ nodes, by }, result) {
    if (!result) return `What is left without ${counted(nodes.length, 'node')} was to be found.`;
    const { names, cutOff, components, largest, reach } = result;
    const more = names.length > NAMED ? ` and ${names.length - NAMED} more` : '';
    const named = more ? names.slice(0, NAMED).join(', ') + more : joinWith('and', names);
    const chosen =
      by === null ? named : `${counted(names.length, 'node')} with the highest ${columnTitle(by)} (${named})`;
    const pairs =
      reach === null ? '' : `; of the pairs that reached each other ${(100 * reach).toFixed(1)} % still do`;
    return (
      `Without ${chosen}, without regard to direction, ${formatCount(cutOff)} of the remaining nodes would be cut off from the largest rest of their component; ` +
      `components would go from ${formatCount(components.before)} to ${formatCount(components.after)}, the largest from ${formatCount(largest.before)} to ${counted(largest.after, 'node')}${pairs}. The network was not changed.`
    );
  },
};
