import { createHash } from 'node:crypto';
import type { Network, PlateMap, PlateView } from '@pebble/contract';
import { captionOf, captionText, smallPicture, type Bounds, type PreparedMap } from '@pebble/core';
import type { Store } from '../storage/open';
import type { KeptDrawing } from '../storage/plates';
import { fromPlacesBytes } from '../storage/placesBytes';
import { preparedMap } from './preparedMap';

/** What a plate shows with the tables as they are now. Throws RangeError for a column that is no longer there. */
export async function drawPlate(
  store: Store,
  network: Network,
  map: PlateMap,
  positions: Buffer,
): Promise<KeptDrawing> {
  return drawPrepared(network, await preparedMap(store, network, map.description), map, positions);
}

/** The same of a map that is prepared already. */
export function drawPrepared(
  network: Network,
  prepared: PreparedMap,
  map: PlateMap,
  positions: Buffer,
): KeptDrawing {
  const { x, y } = fromPlacesBytes(positions);
  return {
    caption: captionText(captionOf(network, prepared, { layout: map.layout, moved: map.moved })),
    shown: { nodes: prepared.nodes.length, edges: prepared.edges.length },
    picture: smallPicture(prepared, x, y, map.view ? partSeen(map.view) : undefined),
    mark: markOf(prepared),
  };
}

/** The part of the map that is seen, in its own units. */
function partSeen({ scale, x, y, width, height }: PlateView): Bounds {
  return {
    left: -x / scale,
    top: -y / scale,
    right: (width - x) / scale,
    bottom: (height - y) / scale,
  };
}

/** The same for two maps whose nodes, ties, sizes, colours and words of the legend are the same. */
function markOf({ nodes, edges, radius, colour, colours, groups, labels }: PreparedMap): string {
  const hash = createHash('sha256');
  for (const part of [nodes, edges, radius, colour])
    hash.update(new Uint8Array(part.buffer, part.byteOffset, part.byteLength)).update(`|${part.length}|`);
  hash.update(JSON.stringify([colours, groups, Array.from(nodes, (v) => labels[v])]));
  return hash.digest('base64url');
}
