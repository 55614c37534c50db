import { columnTitle, graphOf, nodeLabels, rankColumns, rankRanges } from '@pebble/core';
import { addOwnColumns, findNetwork } from '../../storage/networks';
import { readTable } from '../../storage/files/tables';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Doubted extends Record<string, unknown> {
  readonly network: string;
  /** Those that may be first: whose best rank is 1. */
  readonly first: readonly string[];
}

const NAMED = 5;

/** Computes how far the ranks by a measure depend on which messages there happen to be. */
export const bootstrapRanks: StepDefinition<'doubt-ranks', Doubted> = {
  kind: 'doubt-ranks',
  async run({ store, files }, { network, measure, runs, seed }, progress) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    if (!found.directed && /^(in|out)[A-Z]/.test(measure))
      throw new StepRefused('Ties of this network have no direction: there is no such measure.');
    const nodes = readTable(store.folder, network, 'nodes');
    const graph = graphOf(found.nodes, readTable(store.folder, network, 'edges'));
    if (graph.weight.some((weight) => !Number.isInteger(weight)))
      throw new StepRefused(
        'The weights of this network are no numbers of messages, so that these cannot be drawn anew.',
      );
    const { from, to } = rankRanges(graph, found.directed, measure, {
      runs,
      seed,
      progress: (share) => progress('Drawing messages anew', share),
    });
    const title = columnTitle(measure);
    const names = rankColumns(title);
    files.table(network, 'nodes', { ...nodes, [names.from]: from, [names.to]: to });
    const how = (which: string): string =>
      `The ${which} rank by ${title} in 95 of 100 of ${runs} networks whose messages were drawn anew (bootstrap; seed ${seed}).`;
    await addOwnColumns(store, network, [
      { name: names.from, title: names.from, type: 'number', how: how('best') },
      { name: names.to, title: names.to, type: 'number', how: how('worst') },
    ]);
    const labels = nodeLabels(nodes);
    const first = [...from.keys()].filter((v) => from[v] === 1).map((v) => labels[v]);
    return { network, first: first.slice(0, 100) };
  },
  describe({ measure, runs, seed }, result) {
    const title = columnTitle(measure);
    if (!result) return `How sure ranks by ${title} are was to be found.`;
    const { first } = result;
    const more = first.length > NAMED ? ` and ${first.length - NAMED} more` : '';
    const named = first.slice(0, NAMED).join(', ') + more;
    return (
      `Ranks by ${title} were computed again on ${runs} networks whose messages were drawn anew (bootstrap; seed ${seed}); ` +
      `the first rank is within the 95 % range of ${named || 'nobody'}.`
    );
  },
  seed: ({ seed }) => seed,
};
