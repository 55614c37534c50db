import type { ByChance, WholeNetwork } from '@pebble/contract';
import {
  COMPARED,
  comparedFigures,
  counted,
  graphOf,
  neighbourRows,
  sortsIn,
  twoModeDensity,
  wholeFigures,
} from '@pebble/core';
import { findNetwork } from '../../storage/networks';
import { readTable } from '../../storage/files/tables';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Described extends Record<string, unknown> {
  readonly whole: WholeNetwork;
}

/** Computes what a whole network is like, beside random networks with the same degrees. */
export const describeWhole: StepDefinition<'describe-whole', Described> = {
  kind: 'describe-whole',
  async run({ store }, { network, networks, seed }, progress) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    const edges = readTable(store.folder, network, 'edges');
    const graph = graphOf(found.nodes, edges);
    const sorts = sortsIn(readTable(store.folder, network, 'nodes'), edges);
    progress('Measuring the whole', null);
    const figures = {
      ...wholeFigures(graph, found.directed, seed),
      ...(sorts ? { twoModeDensity: twoModeDensity(neighbourRows(graph), sorts) } : {}),
    };
    const chance = comparedFigures(graph, found.directed, {
      networks,
      seed,
      progress: (share) => progress('Networks by chance', share),
    });
    const there = COMPARED.filter((name) => networks > 0 && !Number.isNaN(chance[name].mean));
    const whole: WholeNetwork = {
      figures: Object.fromEntries(Object.entries(figures).map(([name, value]) => [name, orNull(value)])),
      byChance: Object.fromEntries(
        there.map((name): [string, ByChance] => [
          name,
          { mean: chance[name].mean, deviation: orNull(chance[name].deviation) },
        ]),
      ),
      networks,
      seed,
    };
    await store.query
      .updateTable('network')
      .set({ whole: JSON.stringify(whole) })
      .where('id', '=', network)
      .execute();
    return { whole };
  },
  describe({ networks, seed }, result) {
    if (!result) return 'The whole network was to be measured.';
    const { figures, byChance } = result.whole;
    const told = (name: string): string => (figures[name] ?? NaN).toFixed(3);
    const chance = (name: string): string =>
      name in byChance
        ? ` (by chance ${byChance[name].mean.toFixed(3)}, standard deviation ${(byChance[name].deviation ?? NaN).toFixed(3)})`
        : '';
    const parts = [
      `density ${told('density')}`,
      ...(figures['twoModeDensity'] == null
        ? []
        : [`density between the two sorts of nodes ${told('twoModeDensity')}`]),
      ...(figures['reciprocity'] == null
        ? []
        : [`reciprocity ${told('reciprocity')}${chance('reciprocity')}`]),
      ...(figures['transitivity'] == null
        ? []
        : [`transitivity ${told('transitivity')}${chance('transitivity')}`]),
      ...(figures['assortativity'] == null
        ? []
        : [`degree assortativity ${told('assortativity')}${chance('assortativity')}`]),
      ...(figures['corePeriphery'] == null
        ? []
        : [`fit of a core and a periphery ${told('corePeriphery')}${chance('corePeriphery')}`]),
      ...(figures['centralisation'] == null ? [] : [`degree centralisation ${told('centralisation')}`]),
    ];
    const sampled =
      figures['sampledStarts'] == null
        ? ''
        : `, from ${counted(figures['sampledStarts'], 'sampled start node')}`;
    const distance =
      figures['meanDistance'] == null
        ? ''
        : ` The largest component has a mean distance of ${told('meanDistance')}${chance('meanDistance')} and a diameter of ${String(figures['diameter'])}${sampled}.`;
    const made =
      Object.keys(byChance).length > 0
        ? ` By chance means ${counted(networks, 'random network')} with the same degrees (Maslov & Sneppen 2002; seed ${seed}).`
        : '';
    return `The whole network: ${parts.join(', ')}.${distance}${made}`;
  },
  seed: ({ seed }) => seed,
};

/** JSON knows no NaN. */
function orNull(value: number | null): number | null {
  return value === null || Number.isNaN(value) ? null : value;
}
