import {
  basicMeasures,
  betweennessPlan,
  communitiesPhrase,
  formatCount,
  type Graph,
  graphOf,
} from '@pebble/core';
import { findNetwork } from '../db/networks';
import { readTable, writeTable } from '../files/tables';
import { betweennessInThreads } from '../measuring/betweennessInThreads';
import { StepRefused, type Progress, type StepDefinition } from './step';

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
  async run({ store, threads }, { network, settings }, progress) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    const nodes = readTable(store.folder, network, 'nodes');
    const edges = readTable(store.folder, network, 'edges');
    const graph = graphOf(found.nodes, edges);
    const { columns, ...numbers } = basicMeasures(
      graph,
      settings,
      progress,
      found.directed,
      await largeBetweenness(threads.paths, graph, found.directed, settings.seed, progress),
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
      `${communitiesPhrase(result)} were found by the Louvain method (Blondel et al. 2008; resolution ${settings.resolution}, best of ` +
      `${settings.runs} runs, seed ${settings.seed}; modularity ${result.modularity.toFixed(3)}); betweenness ${result.directed ? 'along the direction of ties ' : ''}was ` +
      `computed ${between}; the largest of ${formatCount(result.components)} weak components holds ${formatCount(result.largestComponent)} nodes.`
    );
  },
  seed: ({ settings }) => settings.seed,
};

/** Start nodes x ties above which starting threads is worth while. */
const LARGE = 5e7;

/** Betweenness of a large network in one thread for each core; of a smaller one it is computed with the rest. */
async function largeBetweenness(
  threadFile: string,
  graph: Graph,
  directed: boolean,
  seed: number,
  progress: Progress,
): Promise<Float64Array | undefined> {
  const { rows, pivots } = betweennessPlan(graph, directed);
  if (rows.nodeCount * (rows.nodeCount + rows.neighbour.length) < LARGE) return undefined;
  const found = await betweennessInThreads(threadFile, 'steps', rows, {
    directed,
    normalised: true,
    pivots,
    seed,
    progress: (share) => progress('Betweenness', 0.5 * share),
  });
  return found.values;
}
