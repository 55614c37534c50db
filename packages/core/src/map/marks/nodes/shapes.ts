import { NodeShape } from '@pebble/contract';
import { groupCodes } from '../../../network/groupCodes';
import type { MapNetwork } from '../../network/mapNetwork';

/** One entry of the legend of shapes. */
export interface ShapeGroup {
  readonly name: string;
  readonly shape: NodeShape;
  readonly nodes: number;
}

/** Corners of each shape round the middle, of the area of a disc with radius 1; null for the disc itself. */
export const CORNERS: Readonly<Record<NodeShape, readonly (readonly [number, number])[] | null>> = {
  circle: null,
  square: sized([
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ]),
  diamond: sized([
    [0, -1],
    [1, 0],
    [0, 1],
    [-1, 0],
  ]),
  triangle: sized([
    [0, -1.155],
    [1, 0.577],
    [-1, 0.577],
  ]),
  hexagon: sized([0, 1, 2, 3, 4, 5].map((i) => [Math.cos((i * Math.PI) / 3), Math.sin((i * Math.PI) / 3)])),
  cross: sized([
    [-0.4, -1],
    [0.4, -1],
    [0.4, -0.4],
    [1, -0.4],
    [1, 0.4],
    [0.4, 0.4],
    [0.4, 1],
    [-0.4, 1],
    [-0.4, 0.4],
    [-1, 0.4],
    [-1, -0.4],
    [-0.4, -0.4],
  ]),
};

/** Scales corners so that what they enclose has the area of a disc with radius 1. */
function sized(corners: readonly (readonly [number, number])[]): (readonly [number, number])[] {
  const twice = corners.reduce((sum, [x, y], i) => {
    const [nextX, nextY] = corners[(i + 1) % corners.length];
    return sum + x * nextY - nextX * y;
  }, 0);
  const scale = Math.sqrt(Math.PI / Math.abs(twice / 2));
  return corners.map(([x, y]) => [x * scale, y * scale]);
}

/** How far a shape reaches from its middle along x or y, in radii of the disc of its area. */
export function reachOf(shape: NodeShape): number {
  return Math.max(1, ...(CORNERS[shape] ?? []).flat().map(Math.abs));
}

/** Shapes by a category: the largest ones have a shape each, the rest are circles. Groups of the legend, the largest first. */
export function shapeNodes(
  network: MapNetwork,
  nodes: Uint32Array,
  column: string | null,
): { shape: Uint8Array | null; shapes: readonly ShapeGroup[] } {
  if (column === null || !(column in network.nodes)) return { shape: null, shapes: [] };
  const { of, names } = groupCodes(network.nodes[column]);
  const last = NodeShape.options.length - 1;
  const count = new Uint32Array(names.length);
  for (const v of nodes) count[of[v]]++;
  // The first shape, the circle, is for all that have no shape of their own.
  const shape = Uint8Array.from({ length: network.nodeCount }, (_, v) => (of[v] < last ? of[v] + 1 : 0));
  const own = names.slice(0, last).map((name, g) => ({
    name: name === '' ? 'without' : name,
    shape: NodeShape.options[g + 1],
    nodes: count[g],
  }));
  const rest = count.slice(last).reduce((sum, one) => sum + one, 0);
  const others = rest > 0 ? [{ name: 'all others', shape: NodeShape.options[0], nodes: rest }] : [];
  return { shape, shapes: [...own, ...others].filter((group) => group.nodes > 0) };
}
