import type { MapDescription } from '@pebble/contract';
import { numbersOf } from '../../../network/tables';
import type { MapNetwork } from '../../network/mapNetwork';
import { rangeOf } from '../../style/shares';

export interface NodeSizes {
  /** By node of the network, in pixels at scale 1; 0 for nodes that are not shown. */
  readonly radius: Float32Array;
  /** Least value, and the highest one that still makes a node larger. */
  readonly range: readonly [number, number];
  readonly value: ArrayLike<number>;
}

/** Sizes, where they grow by steps. */
const STEPS = 5;

/** The sizes of the shown nodes by a number column; a node without a value has the smallest. */
export function sizeNodes(network: MapNetwork, nodes: Uint32Array, size: MapDescription['size']): NodeSizes {
  const value = numbersOf(network.nodes, size.column);
  const range = rangeOf(value, nodes, size.cut);
  const radius = new Float32Array(network.nodeCount);
  for (const v of nodes) radius[v] = radiusFor(value[v], range, size);
  return { radius, range, value };
}

/** The radius of a node with this value; the least value has the smallest radius, never 0. Where all are equal they are of middle size. */
export function radiusFor(
  value: number,
  [least, most]: readonly [number, number],
  size: MapDescription['size'],
): number {
  const span = Math.max(size.largest, size.smallest) - size.smallest;
  if (!(most > least)) return size.smallest + span / 3;
  const share = Math.min(1, Math.max(0, (value - least) / (most - least)));
  const grown = grownShare(share, most - least, size.growth);
  return size.smallest + span * (Number.isFinite(grown) ? grown : 0);
}

function grownShare(share: number, range: number, growth: MapDescription['size']['growth']): number {
  switch (growth) {
    case 'linear':
      return share;
    case 'square root':
      return Math.sqrt(share);
    case 'logarithm':
      return Math.log1p(share * range) / Math.log1p(Math.max(range, 1e-9));
    case 'steps':
      return Math.min(STEPS - 1, Math.floor(Math.sqrt(share) * STEPS)) / (STEPS - 1);
  }
}
