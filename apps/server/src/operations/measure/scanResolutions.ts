import type { AtResolution } from '@pebble/contract';
import { graphOf, isCommunityMethod, methodPhrase, overResolutions } from '@pebble/core';
import { findNetwork } from '../../storage/networks';
import { readTable } from '../../storage/files/tables';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Scanned extends Record<string, unknown> {
  readonly network: string;
  readonly found: readonly AtResolution[];
}

/** Says how many groups a method finds over a range of resolutions. */
export const scanResolutions: StepDefinition<'scan-resolutions', Scanned> = {
  kind: 'scan-resolutions',
  async run({ store }, { network, settings }, progress) {
    const { method, weighted } = settings;
    if (!isCommunityMethod(method) || method === 'labels')
      throw new StepRefused('Only Louvain and Leiden know a resolution.');
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    const graph = graphOf(found.nodes, readTable(store.folder, network, 'edges'));
    const weight = weighted ? graph.weight : new Float64Array(graph.weight.length).fill(1);
    const scanned = overResolutions(
      { ...graph, weight },
      {
        ...settings,
        method,
        directed: settings.directed && found.directed,
        progress: (share) => progress('Finding groups', share),
      },
    );
    return { network, found: scanned };
  },
  describe({ settings }, result) {
    if (!result) return 'The number of groups over a range of resolutions was to be found.';
    const [first, last] = [result.found[0], result.found[result.found.length - 1]];
    const phrase = methodPhrase(settings).replace(/resolution [\d.]+, /, '');
    return `Over resolutions from ${first.resolution} to ${last.resolution} the number of groups went from ${first.groups} to ${last.groups}, by ${phrase}.`;
  },
  seed: ({ settings }) => settings.seed,
};
