import { keepPart } from '../../graph/filter';
import type { Graph } from '../../graph/graph';
import { Attraction } from '../attraction/attraction';
import { span } from '../common/finish';
import { removeOverlaps } from '../common/overlaps';
import { packRound } from '../common/pack';
import { rowsOf, type Placement, type PlacedInput } from '../common/placed';
import { neighbourRows } from '../../graph/csr';
import { weakComponents } from '../../graph/components';

const SHORE = 26;
const COVER = 0.32;
const ROUNDS = 240;
const GAP = 2;

interface Island {
  readonly nodes: readonly number[];
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly reach: number;
}

/**
 * Communities, or other groups, as islands: each is arranged by itself, has room by its members, and islands stand by the ties between them.
 * Groups of one or two nodes stand by the island to which they are tied most.
 */
export const islands: Placement = (input, x, y) => {
  const groups = input.data.groups ?? weakComponents(input.graph).of;
  const own = smallOnes(input, groups);
  const members = new Map<number, number[]>();
  for (const v of input.nodes) {
    const list = members.get(own[v]);
    if (list) list.push(v);
    else members.set(own[v], [v]);
  }
  const keys = [...members.keys()].sort((a, b) => members.get(b)!.length - members.get(a)!.length || a - b);
  const made = keys.map((key, i) => {
    input.progress?.(i / keys.length);
    return island(input, members.get(key)!);
  });
  const middle = places(input, own, keys, made);
  made.forEach(({ nodes, x: ownX, y: ownY }, i) =>
    nodes.forEach((v, j) => {
      x[v] = middle.x[i] + ownX[j];
      y[v] = middle.y[i] + ownY[j];
    }),
  );
};

/** Groups, with the smallest ones taken to the group to which they have most weight of ties. */
function smallOnes(input: PlacedInput, groups: Uint32Array): Uint32Array {
  const size = new Map<number, number>();
  for (const v of input.nodes) size.set(groups[v], (size.get(groups[v]) ?? 0) + 1);
  const { offset, neighbour, weight } = rowsOf(input);
  const own = groups.slice();
  for (const v of input.nodes) {
    if (size.get(groups[v])! > 2) continue;
    const pull = new Map<number, number>();
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      const g = groups[neighbour[i]];
      if (size.get(g)! > 2) pull.set(g, (pull.get(g) ?? 0) + weight[i]);
    }
    const [first] = [...pull].sort((a, b) => b[1] - a[1] || a[0] - b[0]);
    if (first) own[v] = first[0];
  }
  return own;
}

/** One group by itself, its middle at 0. */
function island({ graph, radius, settings }: PlacedInput, nodes: readonly number[]): Island {
  const inside = new Uint8Array(graph.nodeCount);
  for (const v of nodes) inside[v] = 1;
  const part = keepPart(
    graph,
    (v) => inside[v] === 1,
    () => true,
  );
  const layout = new Attraction(part.graph, { ...settings, gravity: Math.max(settings.gravity, 3) });
  while (!layout.atRest && layout.iterations < ROUNDS) layout.iterate();
  const size = Float64Array.from(part.node, (v) => radius[v]);
  const covered = size.reduce((sum, r) => sum + Math.PI * (r + GAP) ** 2, 0);
  const { left, top, width, height } = span(layout.x, layout.y);
  const scale = Math.sqrt(covered / COVER / Math.max(width * height, 1e-9));
  const bounded = Number.isFinite(scale) ? Math.min(scale, 40) : 1;
  const x = layout.x.map((one) => (one - left - width / 2) * bounded);
  const y = layout.y.map((one) => (one - top - height / 2) * bounded);
  removeOverlaps(x, y, size, GAP, 200);
  let reach = 0;
  for (let i = 0; i < x.length; i++) reach = Math.max(reach, Math.sqrt(x[i] * x[i] + y[i] * y[i]) + size[i]);
  return { nodes: [...part.node], x, y, reach };
}

/** The middles of the islands: those that are tied with others by attraction, the rest packed round them. */
function places(
  { graph, settings }: PlacedInput,
  own: Uint32Array,
  keys: readonly number[],
  made: readonly Island[],
): { x: Float64Array; y: Float64Array } {
  const number = new Map(keys.map((key, i) => [key, i]));
  const contracted = contract(graph, own, number);
  const x = new Float64Array(keys.length);
  const y = new Float64Array(keys.length);
  const rows = neighbourRows(contracted);
  const isTied = (i: number): boolean => rows.offset[i + 1] > rows.offset[i];
  const tied = keys.map((_, i) => i).filter(isTied);
  const reach = Float64Array.from(made, (one) => one.reach + SHORE);
  if (tied.length > 0) {
    const part = keepPart(contracted, isTied, () => true);
    const layout = new Attraction(part.graph, { ...settings, gravity: 4 });
    while (!layout.atRest && layout.iterations < ROUNDS) layout.iterate();
    let mean = 0;
    for (let i = 0; i < layout.x.length; i++) mean += Math.sqrt(layout.x[i] ** 2 + layout.y[i] ** 2);
    mean = mean / layout.x.length || 1;
    const area = tied.reduce((sum, i) => sum + reach[i] * reach[i], 0);
    const scale = (0.75 * Math.sqrt(area)) / mean;
    const px = layout.x.map((one) => one * scale);
    const py = layout.y.map((one) => one * scale);
    const room = Float64Array.from(part.node, (i) => reach[i]);
    removeOverlaps(px, py, room, 4, 400);
    part.node.forEach((i, j) => {
      x[i] = px[j];
      y[i] = py[j];
    });
  }
  const alone = keys.map((_, i) => i).filter((i) => !isTied(i));
  const spots = packRound(
    tied.map((i) => ({ x: x[i], y: y[i], radius: reach[i] })),
    alone.map((i) => reach[i]),
    8,
  );
  alone.forEach((i, j) => {
    x[i] = spots[j].x;
    y[i] = spots[j].y;
  });
  return { x, y };
}

/** Groups as nodes, the weight of the ties between two as theirs. */
function contract(graph: Graph, own: Uint32Array, number: ReadonlyMap<number, number>): Graph {
  const weights = new Map<number, number>();
  const count = number.size;
  for (let e = 0; e < graph.source.length; e++) {
    const a = number.get(own[graph.source[e]]);
    const b = number.get(own[graph.target[e]]);
    if (a === undefined || b === undefined || a === b) continue;
    const key = Math.min(a, b) * count + Math.max(a, b);
    weights.set(key, (weights.get(key) ?? 0) + graph.weight[e]);
  }
  const ties = [...weights].sort(([a], [b]) => a - b);
  return {
    nodeCount: count,
    source: Uint32Array.from(ties, ([key]) => Math.floor(key / count)),
    target: Uint32Array.from(ties, ([key]) => key % count),
    weight: Float64Array.from(ties, ([, weight]) => weight),
  };
}
