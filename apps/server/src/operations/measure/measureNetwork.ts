import {
  basicMeasures,
  betweennessPlan,
  communitiesPhrase,
  counted,
  formatCount,
  graphOf,
} from '@pebble/core';
import { findNetwork } from '../../storage/networks';
import { readTable } from '../../storage/files/tables';
import { betweennessPhrase } from './measureBetweenness';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Measured extends Record<string, unknown> {
  readonly network: string;
  readonly directed: boolean;
  readonly components: number;
  readonly largestComponent: number;
  readonly isolates: number;
  readonly communities: number;
  readonly modularity: number;
  /** Start nodes of betweenness; null where it is exact, or follows. */
  readonly pivots: number | null;
  readonly seed: number;
  /** Whether betweenness takes so long that it is a step of its own, which follows. */
  readonly betweennessFollows?: boolean;
  /** Whether portraits of its communities follow, which give them their titles. */
  readonly portraitsFollow?: boolean;
}

export const measureNetwork: StepDefinition<'measure-network', Measured> = {
  kind: 'measure-network',
  async run({ store, files }, { network, settings }, progress) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    const nodes = readTable(store.folder, network, 'nodes');
    const graph = graphOf(found.nodes, readTable(store.folder, network, 'edges'));
    const { rows } = betweennessPlan(graph, found.directed);
    const betweennessFollows = rows.nodeCount * (rows.nodeCount + rows.neighbour.length) >= LARGE;
    const { columns, ...numbers } = basicMeasures(
      graph,
      settings,
      progress,
      found.directed,
      betweennessFollows ? null : undefined,
    );
    files.table(network, 'nodes', { ...nodes, ...columns });
    const { pivots, ...others } = numbers;
    const between = betweennessFollows ? {} : { pivots: pivots ?? 0, exact: pivots === null };
    await store.query
      .updateTable('network')
      .set({ state: 'measured', measures: JSON.stringify({ ...others, ...between, ...settings }) })
      .where('id', '=', network)
      .execute();
    return {
      ...others,
      network,
      directed: found.directed,
      seed: settings.seed,
      pivots: betweennessFollows ? null : pivots,
      betweennessFollows,
      portraitsFollow: found.slice === null && found.messages > 0 && found.messages <= MOST_PORTRAYED,
    };
  },
  describe({ settings }, result) {
    if (!result) return 'Degrees, components, communities and betweenness were to be computed.';
    const between = result.betweennessFollows ? '' : `${betweennessPhrase(result)}; `;
    return (
      `${communitiesPhrase(result)} were found by the Louvain method (Blondel et al. 2008; resolution ${settings.resolution}, best of ` +
      `${settings.runs} runs, seed ${settings.seed}; modularity ${result.modularity.toFixed(3)}); ${between}` +
      (result.components === 1
        ? 'all nodes hang together in one weak component.'
        : `the largest of ${formatCount(result.components)} weak components holds ${counted(result.largestComponent, 'node')}.`)
    );
  },
  seed: ({ settings }) => settings.seed,
  followUps: ({ network, seed, betweennessFollows, portraitsFollow }) => [
    ...(portraitsFollow
      ? [{ kind: 'portray-groups' as const, parameters: { network, column: 'community', settings: {} } }]
      : []),
    ...(betweennessFollows ? [{ kind: 'measure-betweenness' as const, parameters: { network, seed } }] : []),
  ],
};

/** Of more messages portraits take long; they are drawn when somebody asks for them. */
export const MOST_PORTRAYED = 300_000;

/** Nodes x (nodes + ties) above which betweenness takes seconds, and starting threads for it is worth while. */
const LARGE = 5e7;
