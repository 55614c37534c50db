import { existsSync, readFileSync } from 'node:fs';
import { MOST_PLATES, type Network, type PlateMap } from '@pebble/contract';
import { counted } from '@pebble/core';
import { StepRefused } from '../../errors/stepErrors';
import { uploadPath } from '../../files/places';
import { drawPlate } from '../../plates/drawnPlate';
import { findNetwork, readPositions } from '../../storage/networks';
import type { Store } from '../../storage/open';
import {
  changePlate,
  chooseCover,
  findPlate,
  keepPlate as keepInStore,
  listPlates,
  orderPlates as orderInStore,
  platePositions,
  type KeptDrawing,
  type KeptPlate,
} from '../../storage/plates';
import type { StepContext, StepDefinition, StepResult } from '../step';

interface Kept extends StepResult {
  readonly plate: number;
  readonly nodes: number;
  readonly edges: number;
  readonly name: string;
}

/** Keeps the state of a map. */
export const keepPlate: StepDefinition<'keep-plate', Kept> = {
  kind: 'keep-plate',
  async run(context, { network: id, title, note, upload, plate, ...map }, progress) {
    progress('Keeping', null);
    const { store, step, now } = context;
    const network = await findNetwork(store, id);
    if (!network) throw new StepRefused('This network is no longer there.');
    if (plate === null && (await listPlates(store)).length >= MOST_PLATES)
      throw new StepRefused(`A study has at most ${MOST_PLATES} plates. Delete one first.`);
    const positions = upload === null ? await readPositions(store, id) : received(context, upload, network);
    if (!positions)
      throw new StepRefused('This map was never arranged, so there is nothing to keep. Open it once.');
    checkNodes(map, network);
    const drawn = await drawOrRefuse(store, network, map, positions);
    const kept = { title, note, network: id, step, keptAt: now, map, drawn, positions };
    return {
      plate: await keepInStore(store, kept, plate),
      ...drawn.shown,
      name: network.name,
    };
  },
  describe({ title, plate }, result) {
    const of = result ? ` of “${result.name}”` : '';
    const what = result ? `: ${counted(result.nodes, 'node')} and ${counted(result.edges, 'tie')}` : '';
    return plate === null
      ? `The map${of} was kept as plate “${title}”${what}.`
      : `Plate “${title}” was replaced by the map${of}${what}.`;
  },
};

/** Where the nodes are that a browser sent. */
function received({ store, files }: StepContext, upload: string, { nodes }: Network): Buffer {
  const path = uploadPath(store.folder, upload);
  if (!existsSync(path))
    throw new StepRefused('The places of the nodes did not arrive. Please keep the plate again.');
  const positions = readFileSync(path);
  if (positions.length !== nodes * 8)
    throw new StepRefused(
      `There are ${nodes} nodes, but places for ${positions.length / 8}. Nothing was kept.`,
    );
  files.spend(upload);
  return positions;
}

function checkNodes({ selection }: PlateMap, { nodes }: Network): void {
  const named =
    selection?.what === 'node'
      ? [selection.node]
      : selection?.what === 'tie'
        ? [selection.source, selection.target]
        : selection?.what === 'nodes'
          ? selection.nodes
          : [];
  const wrong = named.find((node) => node >= nodes);
  if (wrong !== undefined) throw new StepRefused(`This network has no node ${wrong}. Nothing was kept.`);
}

async function drawOrRefuse(
  store: Store,
  network: Network,
  map: PlateMap,
  positions: Buffer,
): Promise<KeptDrawing> {
  try {
    return await drawPlate(store, network, map, positions);
  } catch (error) {
    if (error instanceof RangeError) throw new StepRefused(`${error.message} Nothing was kept.`);
    throw error;
  }
}

async function plateThere(store: Store, id: number): Promise<KeptPlate> {
  const plate = await findPlate(store, id);
  if (!plate) throw new StepRefused('This plate is no longer there. Nothing was changed.');
  return plate;
}

export const namePlate: StepDefinition<'name-plate'> = {
  kind: 'name-plate',
  async run({ store }, { plate, title, note }) {
    await plateThere(store, plate);
    await changePlate(store, plate, { title, note });
    return {};
  },
  describe: ({ title }) => `A plate was called “${title}”, with its note.`,
};

export const duplicatePlate: StepDefinition<'duplicate-plate', { readonly plate: number }> = {
  kind: 'duplicate-plate',
  async run({ store, step, now }, { plate, title }) {
    const { note, network, map, drawn } = await plateThere(store, plate);
    const positions = (await platePositions(store, plate))!;
    const copy = { title, note, network, step, keptAt: now, map, drawn, positions };
    return { plate: await keepInStore(store, copy, null) };
  },
  describe: ({ title }) => `A plate was duplicated as “${title}”.`,
};

interface Renewed extends StepResult {
  readonly before: { readonly nodes: number; readonly edges: number };
  readonly after: { readonly nodes: number; readonly edges: number };
}

/** A plate shows what its description shows of its network now. */
export const renewPlate: StepDefinition<'renew-plate', Renewed> = {
  kind: 'renew-plate',
  async run({ store, step, now }, { plate: id }, progress) {
    progress('Drawing', null);
    const plate = await plateThere(store, id);
    const network = await findNetwork(store, plate.network);
    if (!network)
      throw new StepRefused(
        'The network of this plate was deleted. Take it back first. Nothing was changed.',
      );
    const positions = (await platePositions(store, id))!;
    const drawn = await drawOrRefuse(store, network, plate.map, positions);
    await changePlate(store, id, { drawn, step, keptAt: now });
    return { before: plate.drawn.shown, after: drawn.shown };
  },
  describe({ title }, result) {
    const said = `Plate “${title}” was brought up to date`;
    if (!result) return `${said}.`;
    const { before, after } = result;
    return `${said}: ${counted(after.nodes, 'node')} and ${counted(after.edges, 'tie')}, ${counted(before.nodes, 'node')} and ${counted(before.edges, 'tie')} before.`;
  },
};

export const orderPlates: StepDefinition<'order-plates'> = {
  kind: 'order-plates',
  async run({ store }, { plates }) {
    await orderInStore(store, plates);
    return {};
  },
  describe: () => 'The plates were put into another order.',
};

export const chooseCoverPlate: StepDefinition<'choose-cover'> = {
  kind: 'choose-cover',
  async run({ store }, { plate }) {
    if (plate !== null) await plateThere(store, plate);
    await chooseCover(store, plate);
    return {};
  },
  describe: ({ plate }) =>
    plate === null ? 'No plate stands for the study any more.' : 'A plate was chosen to stand for the study.',
};

export const deletePlate: StepDefinition<'delete-plate'> = {
  kind: 'delete-plate',
  async run({ store, now }, { plate }) {
    await plateThere(store, plate);
    await changePlate(store, plate, { deletedAt: now });
    return {};
  },
  describe: ({ title }) => `Plate “${title}” was deleted; it can be taken back.`,
};

export const restorePlate: StepDefinition<'restore-plate'> = {
  kind: 'restore-plate',
  async run({ store }, { plate }) {
    await changePlate(store, plate, { deletedAt: null });
    return {};
  },
  describe: ({ title }) => `The deleted plate “${title}” was taken back.`,
};
