import { defaultMap, type MapDescription } from '@pebble/contract';
import { buildScene } from '../map/scene/buildScene';
import type { MapNetwork } from '../map/network/mapNetwork';
import { PAPER } from '../map/style/palette';
import { prepareMap } from '../map/scene/prepare';
import type { Scene } from '../map/scene/scene';

/** A map of nodes of one size in a row, each of a group of its own, without ties and names. */
export function rowOfNodes(
  names: readonly string[],
  shape: Partial<MapDescription['shape']>,
  {
    scale = 3,
    columns = {},
    ...more
  }: { scale?: number; columns?: MapNetwork['nodes'] } & Partial<MapNetwork> = {},
): Scene {
  const n = names.length;
  const network: MapNetwork = {
    nodeCount: n,
    nodes: {
      handle: names,
      community: Uint32Array.from(names, (_, v) => v + 1),
      inDegree: new Uint32Array(n).fill(4),
      betweenness: new Float64Array(n),
      ...columns,
    },
    edges: { source: new Uint32Array(0), target: new Uint32Array(0), weight: new Float64Array(0) },
    ...more,
  };
  const description: MapDescription = {
    ...defaultMap,
    size: { ...defaultMap.size, smallest: 10, largest: 10 },
    names: { ...defaultMap.names, count: 0 },
    shape: { ...defaultMap.shape, ...shape },
  };
  return buildScene({
    map: prepareMap(network, description),
    x: Float32Array.from(names, (_, v) => 60 + 70 * v),
    y: new Float32Array(n).fill(60),
    view: { scale, x: 0, y: 0 },
    size: { width: 1400, height: 400 },
    theme: PAPER,
    focus: null,
  });
}
