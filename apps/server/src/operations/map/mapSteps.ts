import { existsSync, readFileSync } from 'node:fs';
import { wholeShown } from '@pebble/contract';
import {
  arrange,
  columnTitle,
  goesOn,
  graphOf,
  layoutData,
  layoutSentence,
  prepareMap,
  rimPhrase,
  shownPhrase,
  type LayoutData,
} from '@pebble/core';
import { findNetwork, readMap, readPositions, saveMap } from '../../storage/networks';
import { fromPlacesBytes, toPlacesBytes } from '../../storage/placesBytes';
import { uploadPath } from '../../files/places';
import { readTable } from '../../storage/files/tables';
import { StepRefused } from '../../errors/stepErrors';
import type { StepContext, StepDefinition } from '../step';

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
    context.files.spend(parameters.upload);
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
    const hand = moved > 0 ? `; ${moved} nodes were moved by hand` : '';
    return `The map was arranged ${layoutSentence(layout, result?.iterations ?? null)}${hand}.`;
  },
  seed: ({ layout }) => layout.seed,
};

/** A method that says in a sentence what it cannot do is told so to the person. */
function refuseTooLarge<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof RangeError) throw new StepRefused(error.message);
    throw error;
  }
}

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
  const table = { nodeCount, nodes, edges };
  const { radius } = prepareMap(table, { ...description, show: wholeShown });
  const now = goesOn(layout) ? placesNow(await readPositions(store, network), description.held) : null;
  const arranged = refuseTooLarge(() =>
    arrange(
      graphOf(nodeCount, edges),
      radius,
      layout,
      (share) => progress('Arranging', share),
      layoutData(table, description, layout, now),
    ),
  );
  const positions = toPlacesBytes(arranged);
  await saveMap(store, network, { layout, iterations: arranged.iterations, moved: 0, positions });
  return { iterations: arranged.iterations, moved: 0 };
}

/** Where the nodes are, with those that are not to move; null for a map without places. */
function placesNow(positions: Buffer | null, held: readonly number[]): LayoutData['now'] {
  return positions && { ...fromPlacesBytes(positions), held };
}

export const describeMap: StepDefinition<'describe-map'> = {
  kind: 'describe-map',
  async run({ store }, { network, description }) {
    if (!(await findNetwork(store, network))) throw new StepRefused('This network is no longer there.');
    await saveMap(store, network, { description });
    return {};
  },
  describe({ description: { size, colour, names, shape, regions, ties, show } }) {
    const shown = shownPhrase(show);
    const parts = [
      `size shows ${columnTitle(size.column)} (${size.growth}${size.cut > 0 ? `, the highest ${100 * size.cut} % alike` : ''})`,
      `colour ${columnTitle(colour.column)}`,
      ...(shape.column === null ? [] : [`shape ${columnTitle(shape.column)}`]),
      ...(shape.rim ? [`rims are ${rimPhrase(shape.rim)}`] : []),
      ...(regions.column === null ? [] : [`outlines ${columnTitle(regions.column)}`]),
      `ties are ${ties.form}`,
      `names are those of the ${names.count} nodes with most ${columnTitle(names.column)}`,
      ...(shown === '' ? [] : [`shown are nodes ${shown}`]),
    ];
    return `On the map, ${parts.join(', ')}.`;
  },
};
