import { existsSync, readFileSync } from 'node:fs';
import { arrange, graphOf, prepareMap } from '@pebble/core';
import { findNetwork, readMap, saveMap } from '../db/networks';
import { uploadPath } from '../files/places';
import { readTable } from '../files/tables';
import { StepRefused, type StepContext, type StepDefinition } from './step';

interface Arranged extends Record<string, unknown> {
  readonly iterations: number;
  readonly moved: number;
}

export const arrangeMap: StepDefinition<'arrange-map', Arranged> = {
  kind: 'arrange-map',
  async run(context, parameters, progress) {
    const { store } = context;
    const found = await findNetwork(store, parameters.network);
    if (!found) throw new StepRefused('This network is no longer there.');
    if (parameters.upload === null)
      return computePositions(context, parameters.network, parameters.layout, progress);
    const path = uploadPath(store.folder, parameters.upload);
    if (!existsSync(path))
      throw new StepRefused('The positions did not arrive. Please arrange the map again.');
    const positions = readFileSync(path);
    if (positions.length !== found.nodes * 8) {
      throw new StepRefused(
        `There are ${found.nodes} nodes, but positions for ${positions.length / 8}. Nothing was changed.`,
      );
    }
    context.spend(parameters.upload);
    const iterations = parameters.iterations ?? 0;
    await saveMap(store, parameters.network, {
      layout: parameters.layout,
      iterations,
      moved: parameters.moved,
      positions,
    });
    return { iterations, moved: parameters.moved };
  },
  describe({ layout, moved }, result) {
    const by = `The map was arranged by attraction and repulsion with degree weights (Noack 2009; Jacomy et al. 2014; seed ${layout.seed}`;
    const by2 = result ? `${by}, ${result.iterations} iterations)` : `${by})`;
    const hand = moved > 0 ? `; ${moved} nodes were moved by hand` : '';
    return `${by2}; overlaps were removed, small components packed round the largest, isolates set apart below${hand}.`;
  },
  seed: ({ layout }) => layout.seed,
};

async function computePositions(
  { store }: StepContext,
  network: string,
  layout: Parameters<typeof arrange>[2],
  progress: (phase: string, share: number) => void,
): Promise<Arranged> {
  const nodes = readTable(store.folder, network, 'nodes');
  const edges = readTable(store.folder, network, 'edges');
  const nodeCount = nodes['id'].length;
  const { description } = await readMap(store, network);
  const { radius } = prepareMap(
    { nodeCount, nodes, edges },
    {
      ...description,
      show: { ...description.show, communities: null, isolates: true, largestComponent: false },
    },
  );
  const arranged = arrange(graphOf(nodeCount, edges), radius, layout, (share) =>
    progress('Arranging', share),
  );
  const positions = Buffer.alloc(nodeCount * 8);
  for (let v = 0; v < nodeCount; v++) {
    positions.writeFloatLE(arranged.x[v], v * 8);
    positions.writeFloatLE(arranged.y[v], v * 8 + 4);
  }
  await saveMap(store, network, { layout, iterations: arranged.iterations, moved: 0, positions });
  return { iterations: arranged.iterations, moved: 0 };
}

export const describeMap: StepDefinition<'describe-map'> = {
  kind: 'describe-map',
  async run({ store }, { network, description }) {
    if (!(await findNetwork(store, network))) throw new StepRefused('This network is no longer there.');
    await saveMap(store, network, { description });
    return {};
  },
  describe: ({ description: { size, colour, names } }) =>
    `On the map, size shows ${size.column} (${size.growth}), colour ${colour.column}, and names are those of the ${names.count} accounts with most ${names.column}.`,
};
