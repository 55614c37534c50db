import type { Graph } from '../graph/graph';
import { keepPart } from '../graph/filter';
import { neighbourRows, withoutSelfLoops } from '../graph/csr';
import { Random } from '../random';
import { countCrossings, estimateCrossings } from './fewCrossings/crossings';

/** How well a picture can be read. */
export interface Legibility {
  /** Pairs of ties that cross, drawn straight; estimated where there are many ties. */
  readonly crossings: number;
  readonly crossingsAreEstimated: boolean;
  /** Of all pairs of ties without a common end the share that crosses, 0 to 1. */
  readonly crossingShare: number;
  /** Pairs of nodes that overlap at scale 1. */
  readonly overlaps: number;
  /**
   * How well near means tied: of the k nearest nodes on the page the share that is tied, k being how many ties a node has; the mean over
   * nodes with ties, 0 to 1. NaN without ties.
   */
  readonly neighboursKept: number;
  /** How far distances are from being proportional to steps in the network, 0 to 1, from sampled nodes (normalised stress). */
  readonly stress: number;
}

const MOST_TIES = 3000;
const PAIRS = 2_000_000;
const SAMPLED = 300;
const STARTS = 60;

/**
 * Figures of how well a picture can be read. Only what is shown counts.
 * @param nodes, edges that are shown
 */
export function legibility(
  whole: Graph,
  nodes: Uint32Array,
  edges: Uint32Array,
  {
    x: allX,
    y: allY,
    radius: allRadius,
  }: { x: ArrayLike<number>; y: ArrayLike<number>; radius: ArrayLike<number> },
  seed = 1,
): Legibility {
  const [isNode, isEdge] = [new Uint8Array(whole.nodeCount), new Uint8Array(whole.source.length)];
  for (const v of nodes) isNode[v] = 1;
  for (const e of edges) isEdge[e] = 1;
  const { graph, node } = keepPart(
    whole,
    (v) => isNode[v] === 1,
    (e) => isEdge[e] === 1 && whole.source[e] !== whole.target[e],
  );
  const x = Float64Array.from(node, (v) => allX[v]);
  const y = Float64Array.from(node, (v) => allY[v]);
  const chance = new Random(seed);
  const m = graph.source.length;
  const isEstimated = m > MOST_TIES;
  const crossings = isEstimated ? estimateCrossings(graph, x, y, PAIRS, chance) : countCrossings(graph, x, y);
  const pairs = (m * (m - 1)) / 2 - pairsWithCommonEnd(graph);
  return {
    crossings,
    crossingsAreEstimated: isEstimated,
    crossingShare: pairs > 0 ? crossings / pairs : 0,
    overlaps: countOverlaps(
      x,
      y,
      Float64Array.from(node, (v) => allRadius[v]),
    ),
    neighboursKept: neighboursKept(graph, x, y, chance),
    stress: sampledStress(graph, x, y, chance),
  };
}

function pairsWithCommonEnd({ nodeCount, source, target }: Graph): number {
  const ends = new Float64Array(nodeCount);
  for (let e = 0; e < source.length; e++) {
    ends[source[e]]++;
    ends[target[e]]++;
  }
  return ends.reduce((sum, count) => sum + (count * (count - 1)) / 2, 0);
}

/** Pairs of discs that lie on each other. */
export function countOverlaps(x: Float64Array, y: Float64Array, radius: Float64Array): number {
  let widest = 0;
  for (const r of radius) widest = Math.max(widest, r);
  const order = Array.from({ length: x.length }, (_, v) => v).sort((a, b) => x[a] - x[b]);
  let count = 0;
  for (let i = 0; i < order.length; i++) {
    const a = order[i];
    for (let j = i + 1; j < order.length; j++) {
      const b = order[j];
      if (x[b] - x[a] >= radius[a] + widest) break;
      const reach = radius[a] + radius[b];
      if ((x[a] - x[b]) ** 2 + (y[a] - y[b]) ** 2 < reach * reach * 0.9996) count++;
    }
  }
  return count;
}

function neighboursKept(graph: Graph, x: Float64Array, y: Float64Array, chance: Random): number {
  const { nodeCount: n, offset, neighbour } = withoutSelfLoops(neighbourRows(graph));
  const tied = Array.from({ length: n }, (_, v) => v).filter((v) => offset[v + 1] > offset[v]);
  const some = tied.length > SAMPLED ? chance.shuffle(tied).slice(0, SAMPLED) : tied;
  let sum = 0;
  const distance = new Float64Array(n);
  for (const v of some) {
    const degree = offset[v + 1] - offset[v];
    for (let u = 0; u < n; u++) distance[u] = u === v ? Infinity : (x[u] - x[v]) ** 2 + (y[u] - y[v]) ** 2;
    const sorted = distance.slice().sort();
    const reach = sorted[degree - 1];
    let near = 0;
    for (let i = offset[v]; i < offset[v + 1]; i++) if (distance[neighbour[i]] <= reach) near++;
    sum += Math.min(near, degree) / degree;
  }
  return some.length > 0 ? sum / some.length : NaN;
}

function sampledStress(graph: Graph, x: Float64Array, y: Float64Array, chance: Random): number {
  const { nodeCount: n, offset, neighbour } = withoutSelfLoops(neighbourRows(graph));
  const starts = n > STARTS ? chance.sample(n, STARTS) : Array.from({ length: n }, (_, v) => v);
  const steps = new Int32Array(n);
  const queue = new Uint32Array(n);
  let [squares, products, all] = [0, 0, 0];
  for (const start of starts) {
    steps.fill(-1);
    steps[start] = 0;
    queue[0] = start;
    let tail = 1;
    for (let head = 0; head < tail; head++) {
      const v = queue[head];
      if (head > 0) {
        const apart = Math.sqrt((x[v] - x[start]) ** 2 + (y[v] - y[start]) ** 2) / steps[v];
        squares += apart * apart;
        products += apart;
        all++;
      }
      for (let i = offset[v]; i < offset[v + 1]; i++) {
        const u = neighbour[i];
        if (steps[u] >= 0) continue;
        steps[u] = steps[v] + 1;
        queue[tail++] = u;
      }
    }
  }
  if (all === 0) return NaN;
  return squares > 0 ? 1 - products ** 2 / (squares * all) : 1;
}
