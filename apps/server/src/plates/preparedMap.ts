import type { MapDescription, Network } from '@pebble/contract';
import { prepareMap, type PreparedMap } from '@pebble/core';
import type { Store } from '../storage/open';
import { nodePictures } from '../storage/pictures';
import { readTable } from '../storage/files/tables';
import { evidenceOf } from '../weaving/evidenceOf';

/** What a map shows of a network by a description, with its tables as they are now. */
export async function preparedMap(
  store: Store,
  network: Network,
  description: MapDescription,
): Promise<PreparedMap> {
  const dailyTieCounts = description.show.period
    ? await (await evidenceOf(store, network))?.dailyTieCounts()
    : null;
  return prepareMap(
    {
      nodeCount: network.nodes,
      directed: network.directed,
      titles: network.titles,
      nodes: readTable(store.folder, network.id, 'nodes'),
      edges: readTable(store.folder, network.id, 'edges'),
      dailyTieCounts,
      pictures: description.shape.pictures ? await nodePictures(store) : [],
    },
    description,
  );
}
