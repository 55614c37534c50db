import { existsSync } from 'node:fs';
import type { Network, PackageMap } from '@pebble/contract';
import { counted, prepareMap, type PreparedMap } from '@pebble/core';
import { StepRefused } from '../../errors/stepErrors';
import { BadPackage } from '../../files/openedZip';
import { uploadPath } from '../../files/places';
import { readPacked, type OpenedPackage } from '../../packing/readPacked';
import { drawPrepared } from '../../plates/drawnPlate';
import { findNetwork, saveMap, type Opened } from '../../storage/networks';
import { keepPlate } from '../../storage/plates';
import type { Progress } from '../../threads/progress';
import type { StepContext, StepDefinition } from '../step';

interface OpenedReport extends Record<string, unknown> {
  readonly network: string;
  readonly title: string;
  readonly nodes: number;
  readonly edges: number;
  readonly plates: number;
  /** What does not fit what the package says of itself, and what could not be taken. */
  readonly notes: readonly string[];
}

/** A package becomes a network of the study with its map and its plates, as they were; the messages behind it are not in it. */
export const openPackage: StepDefinition<'open-package', OpenedReport> = {
  kind: 'open-package',
  async run(context, { upload }, progress) {
    const { store, files } = context;
    const path = uploadPath(store.folder, upload);
    if (!existsSync(path)) throw new StepRefused('This file is no longer there. Please open it again.');
    const opened = await readOrRefuse(path, progress);
    progress('Storing', 0.9);
    const id = await storeOpened(context, opened);
    const network = (await findNetwork(store, id))!;
    const { map } = opened;
    drawOrRefuse(opened, network, map.map.description);
    const positions = opened.positions.get(map.map.positions)!;
    const { description, layout, iterations, moved } = map.map;
    await saveMap(store, id, {
      description,
      ...(layout ? { layout } : {}),
      ...(iterations === null ? {} : { iterations }),
      moved,
      positions,
    });
    const left = await keepPlates(context, opened, network);
    files.spend(upload);
    return {
      network: id,
      title: opened.title,
      nodes: network.nodes,
      edges: network.edges,
      plates: map.plates.length - left.length,
      notes: [...opened.notes, ...left],
    };
  },
  describe({ file }, report) {
    if (!report) return `The package ${file} was to be opened.`;
    const plates = report.plates > 0 ? ` and ${counted(report.plates, 'plate')}` : '';
    const notes = report.notes.map((note) => ` ${note}`).join('');
    return `“${report.title}”, ${counted(report.nodes, 'node')} and ${counted(report.edges, 'tie')} with their map${plates}, was opened from the package ${file}.${notes}`;
  },
};

async function readOrRefuse(path: string, progress: Progress): Promise<OpenedPackage> {
  try {
    return await readPacked(path, progress);
  } catch (error) {
    if (error instanceof BadPackage)
      throw new StepRefused(`The package cannot be opened: ${error.message} Nothing was taken from it.`);
    throw error;
  }
}

/** Makes the network a part of the study, measured as it came. Gives its id. */
async function storeOpened(context: StepContext, opened: OpenedPackage): Promise<string> {
  const { store, files, step, now, newId } = context;
  const { network } = opened.map;
  const id = newId();
  files.table(id, 'nodes', opened.nodes);
  files.table(id, 'edges', opened.edges);
  if (opened.days) files.table(id, 'days', { ...opened.days });
  const { weave, changed, messages, titles } = network;
  await store.query
    .insertInto('network')
    .values({
      id,
      step_id: step,
      name: network.name,
      weave: 'null',
      opened: JSON.stringify({ title: opened.title, weave, changed, messages, titles } satisfies Opened),
      directed: network.directed ? 1 : 0,
      own_columns: JSON.stringify(network.columns),
      decisions: '[]',
      slice: null,
      changed: null,
      whole: network.whole ? JSON.stringify(network.whole) : null,
      groupings: JSON.stringify(network.groupings),
      sentence: network.sentence,
      nodes: network.nodes,
      edges: network.edges,
      messages: 0,
      state: 'measured',
      measures: JSON.stringify(network.measures),
      // Documents that are made of it bear its time.
      created_at: Number.isNaN(Date.parse(network.createdAt)) ? now : network.createdAt,
      deleted_at: null,
    })
    .execute();
  await store.query.updateTable('study').set({ changed_at: now }).execute();
  return id;
}

/** What a description shows. Its tables have not come to their places yet. Throws RangeError for a column that is not there. */
function prepared(
  { nodes, edges, days }: OpenedPackage,
  network: Network,
  description: PackageMap['map']['description'],
): PreparedMap {
  const { nodes: nodeCount, directed, titles } = network;
  return prepareMap(
    { nodeCount, directed, titles, nodes, edges, dailyTieCounts: days, pictures: [] },
    description,
  );
}

function drawOrRefuse(
  opened: OpenedPackage,
  network: Network,
  description: PackageMap['map']['description'],
): void {
  try {
    prepared(opened, network, description);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new StepRefused(
      `The package cannot be opened: its map cannot be drawn (${error.message}). Nothing was taken from it.`,
    );
  }
}

/** Keeps the plates of a package. Says of those that cannot be drawn why. */
async function keepPlates(
  { store, step, now }: StepContext,
  opened: OpenedPackage,
  network: Network,
): Promise<string[]> {
  const left: string[] = [];
  for (const { title, note, map, positions: place } of opened.map.plates) {
    const positions = opened.positions.get(place)!;
    try {
      const drawn = drawPrepared(network, prepared(opened, network, map.description), map, positions);
      await keepPlate(
        store,
        { title, note, network: network.id, step, keptAt: now, map, drawn, positions },
        null,
      );
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      left.push(`The plate “${title}” cannot be drawn and was left out (${error.message}).`);
    }
  }
  return left;
}
