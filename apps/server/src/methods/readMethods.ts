import type { Methods, Network } from '@pebble/contract';
import { neededColumns, referencesIn } from '@pebble/core';
import { findNetwork, readMap } from '../storage/networks';
import type { Store } from '../storage/open';
import { readTable } from '../storage/files/tables';
import { methodsOf } from './methodsOf';

/** How a network, and what is known of it, came about, with the works that this cites. */
export async function readMethods(store: Store, id: string): Promise<Methods> {
  const network = (await findNetwork(store, id))!;
  const sentences = await methodsOf(store, network);
  return { sentences, references: referencesIn([...sentences, ...(await howColumns(store, network))]) };
}

/** How the columns were computed by which the map is drawn. */
async function howColumns(store: Store, { id, columns }: Network): Promise<string[]> {
  const { description } = await readMap(store, id);
  const needed = neededColumns(
    description,
    readTable(
      store.folder,
      id,
      'nodes',
      columns.map(({ name }) => name),
    ),
  );
  return columns.filter(({ name }) => needed.has(name)).map(({ how }) => how);
}
