import { basicMeasures, formatCount, graphOf } from '@pebble/core';
import { findNetwork } from '../db/networks';
import { readTable, writeTable } from '../files/tables';
import { StepRefused, type StepDefinition } from './step';

interface Measured extends Record<string, unknown> {
  readonly network: string;
  readonly directed: boolean;
  readonly components: number;
  readonly largestComponent: number;
  readonly isolates: number;
  readonly communities: number;
  readonly modularity: number;
  readonly pivots: number | null;
}

export const measureNetwork: StepDefinition<'measure-network', Measured> = {
  kind: 'measure-network',
  async run({ store }, { network, settings }, progress) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    const nodes = readTable(store.folder, network, 'nodes');
    const edges = readTable(store.folder, network, 'edges');
    const { columns, ...numbers } = basicMeasures(
      graphOf(found.nodes, edges),
      settings,
      progress,
      found.directed,
    );
    writeTable(store.folder, network, 'nodes', { ...nodes, ...columns });
    const measures = { ...numbers, pivots: numbers.pivots ?? 0, exact: numbers.pivots === null, ...settings };
    await store.query
      .updateTable('network')
      .set({ state: 'measured', measures: JSON.stringify(measures) })
      .where('id', '=', network)
      .execute();
    return { network, directed: found.directed, ...numbers };
  },
  describe({ settings }, result) {
    if (!result) return 'Degrees, components, communities and betweenness were to be computed.';
    const between =
      result.pivots === null
        ? 'exactly (Brandes 2001)'
        : `from ${formatCount(result.pivots)} sampled start nodes (Brandes & Pich 2007)`;
    return (
      `${result.communities} communities were found by the Louvain method (Blondel et al. 2008; resolution ${settings.resolution}, best of ` +
      `${settings.runs} runs, seed ${settings.seed}; modularity ${result.modularity.toFixed(3)}); betweenness ${result.directed ? 'along the direction of ties ' : ''}was ` +
      `computed ${between}; the largest of ${formatCount(result.components)} weak components holds ${formatCount(result.largestComponent)} nodes.`
    );
  },
  seed: ({ settings }) => settings.seed,
};
