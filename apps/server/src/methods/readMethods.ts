import type { MapDescription, Methods, MethodsLength, Network } from '@pebble/contract';
import { neededColumns, referencesIn } from '@pebble/core';
import { findNetwork, readMap } from '../storage/networks';
import type { Store } from '../storage/open';
import { readTable } from '../storage/files/tables';
import { methodsOf } from './methodsOf';

/** How a network, and what is known of it, came about, with the works that this cites. */
export async function readMethods(
  store: Store,
  { network: id, length }: { readonly network: string; readonly length: MethodsLength },
): Promise<Methods> {
  const network = (await findNetwork(store, id))!;
  const { description } = await readMap(store, id);
  return methodsOfMaps(store, [{ network, description }], length);
}

/** How maps came about, with the works that this cites. */
export async function methodsOfMaps(
  store: Store,
  maps: readonly { readonly network: Network; readonly description: MapDescription }[],
  length: MethodsLength = 'long',
): Promise<Methods> {
  const networks = new Map(maps.map(({ network }) => [network.id, network]));
  const paragraphs = await methodsOf(store, [...networks.values()], length);
  const sentences = paragraphs.flat();
  return {
    paragraphs,
    references: referencesIn([...sentences, ...maps.flatMap((map) => howColumns(store, map))]),
  };
}

/** How the columns were computed by which the map is drawn. */
function howColumns(
  store: Store,
  {
    network: { id, columns },
    description,
  }: { readonly network: Network; readonly description: MapDescription },
): string[] {
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
