import { existsSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import * as z from 'zod';
import { dirname, join } from 'node:path';
import { SmallPicture } from '@pebble/contract';
import { prepareMap, smallPicture } from '@pebble/core';
import { findNetwork, readMap, readPositions } from '../networks';
import type { Store } from '../open';
import { fromPlacesBytes } from '../placesBytes';
import { readTable, wholeTable } from './tables';

/**
 * The small picture of a network's map. It is kept beside the tables and made anew when the map or the tables are others: making it takes
 * as long as opening the map.
 */
export async function readSmallPicture(store: Store, network: string): Promise<SmallPicture | null> {
  const positions = await readPositions(store, network);
  const found = positions && (await findNetwork(store, network));
  if (!found) return null;
  const { description } = await readMap(store, network);
  const table = wholeTable(store.folder, network, 'nodes');
  const of = JSON.stringify([description, positions.length, statSync(table).mtimeMs, checksum(positions)]);
  const path = join(dirname(table), 'small-picture.json');
  const kept = keptPicture(path);
  if (kept?.of === of) return kept.picture;
  const tables = {
    nodeCount: found.nodes,
    nodes: readTable(store.folder, network, 'nodes'),
    edges: readTable(store.folder, network, 'edges'),
  };
  const { x, y } = fromPlacesBytes(positions);
  const picture = smallPicture(prepareMap(tables, description), x, y);
  writeFileSync(path, JSON.stringify({ of, picture }));
  return picture;
}

const Kept = z.object({ of: z.string(), picture: SmallPicture });

/** Null where none is kept, or one that cannot be read. */
function keptPicture(path: string): z.infer<typeof Kept> | null {
  if (!existsSync(path)) return null;
  try {
    return Kept.parse(JSON.parse(readFileSync(path, 'utf8')));
  } catch {
    return null;
  }
}

/** Whether places are the same as before. */
function checksum(bytes: Buffer): number {
  let sum = 0;
  for (let i = 0; i + 4 <= bytes.length; i += 4) sum = (Math.imul(sum, 31) + bytes.readInt32LE(i)) | 0;
  return sum;
}
