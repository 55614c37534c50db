import { availableParallelism } from 'node:os';
import { betweennessPlan, capital, formatCount, graphOf } from '@pebble/core';
import { findNetwork } from '../../storage/networks';
import { readTable } from '../../storage/files/tables';
import { betweennessInThreads } from '../../measuring/betweennessInThreads';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Found extends Record<string, unknown> {
  readonly network: string;
  readonly directed: boolean;
  /** Start nodes; null where it is exact. */
  readonly pivots: number | null;
}

interface Computed {
  readonly values: Float64Array;
  readonly pivots: number | undefined;
}

/** Betweenness of a large network, in threads of its own, beside other steps. */
export const measureBetweenness: StepDefinition<'measure-betweenness', Found, Computed> = {
  kind: 'measure-betweenness',
  async prepare({ store, threads, gate }, { network, seed }, progress) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    const { directed } = found;
    const graph = graphOf(found.nodes, readTable(store.folder, network, 'edges'));
    const { rows, pivots } = betweennessPlan(graph, directed);
    const { values } = await betweennessInThreads(threads.paths, 'steps', rows, {
      directed,
      normalised: true,
      pivots,
      seed,
      // One core is left to those who look at the map meanwhile.
      most: Math.max(1, availableParallelism() - 1),
      gate,
      progress: (share) => progress('Betweenness', share),
    });
    return { values, pivots };
  },
  async run({ store, files }, { network }, _progress, { values, pivots }) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    const { directed } = found;
    // Columns that came in the meantime stay.
    const nodes = readTable(store.folder, network, 'nodes');
    files.table(network, 'nodes', { ...nodes, betweenness: values });
    const measures = { ...found.measures, pivots: pivots ?? 0, exact: pivots === undefined };
    await store.query
      .updateTable('network')
      .set({ measures: JSON.stringify(measures) })
      .where('id', '=', network)
      .execute();
    return { network, directed, pivots: pivots ?? null };
  },
  describe(_parameters, result) {
    if (!result) return 'Betweenness was to be computed.';
    return `${capital(betweennessPhrase(result))}.`;
  },
  seed: ({ seed }) => seed,
};

/** "betweenness along the direction of ties was computed exactly (Brandes 2001)" */
export function betweennessPhrase({ directed, pivots }: Pick<Found, 'directed' | 'pivots'>): string {
  const how =
    pivots === null
      ? 'exactly (Brandes 2001)'
      : `from ${formatCount(pivots)} sampled start nodes (Brandes & Pich 2007)`;
  return `betweenness ${directed ? 'along the direction of ties ' : ''}was computed ${how}`;
}
