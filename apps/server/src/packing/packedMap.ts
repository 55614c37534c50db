import {
  PACKAGE_MAP_FORMAT,
  PACKAGE_MAP_VERSION,
  type MapDescription,
  type Network,
  type PackageMap,
  type PackageQuery,
} from '@pebble/contract';
import { neededColumns, wovenAs, type DailyTieCounts, type TableColumns } from '@pebble/core';
import { preparedMap } from '../plates/preparedMap';
import { publishedTable, type PublishedTable } from '../people/publishedTable';
import { readTable } from '../storage/files/tables';
import { readMap, readPositions } from '../storage/networks';
import type { Store } from '../storage/open';
import { listPlates, platePositions, type KeptPlate } from '../storage/plates';
import { dailyTieCountsOf } from '../weaving/dailyTieCountsOf';

/** Files with the places of nodes. */
const PLACES = 'map/positions.f32';

/** A network as it goes into a package, with its map and its plates. */
export interface PackedNetwork {
  readonly network: Network;
  readonly table: PublishedTable;
  readonly edges: TableColumns;
  /** Messages of ties by day; null where they are not known. */
  readonly days: DailyTieCounts | null;
  readonly map: PackageMap;
  /** Places of nodes, by the file that they are to lie in. */
  readonly positions: ReadonlyMap<string, Buffer>;
  readonly plates: readonly KeptPlate[];
  /** Titles of plates that cannot be drawn any more. */
  readonly left: readonly string[];
}

/** Null for a map that was never arranged. */
export async function packedNetwork(
  store: Store,
  network: Network,
  query: PackageQuery,
): Promise<PackedNetwork | null> {
  const own = await readPositions(store, network.id);
  if (!own) return null;
  const saved = await readMap(store, network.id);
  const all = query.plates === 'true' ? await listPlates(store) : [];
  const ofIt = all.filter((plate) => plate.network === network.id);
  const canBe = await Promise.all(ofIt.map(({ map }) => canBeDrawn(store, network, map.description)));
  const plates = ofIt.filter((_, i) => canBe[i]);
  const nodes = readTable(store.folder, network.id, 'nodes');
  const drawn = [saved.description, ...plates.map(({ map }) => map.description)];
  const needed = new Set(drawn.flatMap((description) => [...neededColumns(description, nodes)]));
  const published = await publishedTable(store, network, needed);
  // Numbers by which this study knows accounts are those of others elsewhere.
  const table = { ...published, nodes: { ...published.nodes, id: numbered(network.nodes) } };
  const positions = new Map([[PLACES, own]]);
  for (const [i, { id }] of plates.entries())
    positions.set(placesOf(i), (await platePositions(store, id)) ?? Buffer.alloc(0));
  return {
    network,
    table,
    edges: readTable(store.folder, network.id, 'edges'),
    days: await dailyTieCountsOf(store, network),
    positions,
    plates,
    left: ofIt.filter((_, i) => !canBe[i]).map(({ title }) => title),
    map: {
      format: PACKAGE_MAP_FORMAT,
      version: PACKAGE_MAP_VERSION,
      network: told(network, table),
      map: {
        description: withoutPictures(saved.description),
        layout: saved.layout,
        iterations: saved.iterations,
        moved: saved.moved,
        positions: PLACES,
      },
      plates: plates.map(({ title, note, map }, i) => ({
        title,
        note,
        map: { ...map, description: withoutPictures(map.description) },
        positions: placesOf(i),
      })),
    },
  };
}

const numbered = (count: number): Uint32Array => Uint32Array.from({ length: count }, (_, v) => v + 1);

async function canBeDrawn(store: Store, network: Network, description: MapDescription): Promise<boolean> {
  try {
    await preparedMap(store, network, description);
    return true;
  } catch (error) {
    if (error instanceof RangeError) return false;
    throw error;
  }
}

const placesOf = (plate: number): string => `map/plate-${plate + 1}.f32`;

function told(network: Network, { nodes, titles }: PublishedTable): PackageMap['network'] {
  const { name, weave, opened, directed, sentence, edges, messages, createdAt, columns } = network;
  const { changed, groupings, measures, whole } = network;
  return {
    name,
    weave: wovenAs({ weave, opened }),
    changed: changed?.words ?? opened?.changed ?? null,
    directed,
    sentence,
    nodes: network.nodes,
    edges,
    messages: opened?.messages ?? messages,
    createdAt,
    columns: columns.filter((column) => column.name in nodes),
    groupings,
    measures,
    whole,
    titles,
  };
}

/** Pictures of accounts show faces: they stay in the study. */
export function withoutPictures(description: MapDescription): MapDescription {
  return description.shape.pictures
    ? { ...description, shape: { ...description.shape, pictures: false } }
    : description;
}
