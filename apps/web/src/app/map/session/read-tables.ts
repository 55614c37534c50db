import { fromArrow, type MapNetwork } from '@pebble/core';
import { forkJoin, map, type Observable } from 'rxjs';
import { pathOf, type Api, type NetworkPlace } from '../../api/api';

/** The tables of a network as a map has them. */
export function readTables(api: Api, place: NetworkPlace): Observable<Pick<MapNetwork, 'nodes' | 'edges'>> {
  return forkJoin([
    api.table({ ...pathOf(place), table: 'nodes' }),
    api.table({ ...pathOf(place), table: 'edges' }),
  ]).pipe(
    map(([nodes, edges]) => ({
      nodes: fromArrow(new Uint8Array(nodes)),
      edges: fromArrow(new Uint8Array(edges)),
    })),
  );
}
