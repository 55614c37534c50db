import type { MapDescription, Network } from '@pebble/contract';
import { prepareMap, withNames, type PreparedMap, type PublishedNames } from '@pebble/core';
import type { Store } from '../storage/open';
import { nodePictures } from '../storage/pictures';
import { readTable } from '../storage/files/tables';
import { dailyTieCountsOf } from '../weaving/dailyTieCountsOf';

/**
 * What a map shows of a network by a description, with its tables as they are now.
 * @param names what nodes are called in what is published; as they are where it is left out
 */
export async function preparedMap(
  store: Store,
  network: Network,
  description: MapDescription,
  names: PublishedNames | null = null,
): Promise<PreparedMap> {
  const dailyTieCounts = description.show.period ? await dailyTieCountsOf(store, network) : null;
  const map = prepareMap(
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
  return names ? withNames(map, names) : map;
}
