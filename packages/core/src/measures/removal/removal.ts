import { weakComponents } from '../../graph/components';
import type { Graph } from '../../graph/graph';
import { Random } from '../../random';

/** What is left of a network without some of its nodes, without regard to direction. */
export interface Removal {
  readonly components: { readonly before: number; readonly after: number };
  readonly largest: { readonly before: number; readonly after: number };
  /** Nodes that were in one component with a removed one and are not in the largest rest of it, ascending. */
  readonly cutOff: readonly number[];
  /** Pairs of the remaining nodes that still reach each other, over those that did before; NaN where none did. */
  readonly reach: number;
}

/** Takes nodes out of a network. */
export function removeNodes(graph: Graph, removed: Iterable<number>): Removal {
  const gone = new Uint8Array(graph.nodeCount);
  for (const v of removed) gone[v] = 1;
  const before = weakComponents(graph);
  const kept = Uint32Array.from(graph.source.keys()).filter(
    (e) => gone[graph.source[e]] === 0 && gone[graph.target[e]] === 0,
  );
  const after = weakComponents({
    nodeCount: graph.nodeCount,
    source: Uint32Array.from(kept, (e) => graph.source[e]),
    target: Uint32Array.from(kept, (e) => graph.target[e]),
    weight: new Float64Array(kept.length),
  });
  const left = Uint32Array.from(gone.keys()).filter((v) => gone[v] === 0);
  const sizes = sizesOf(left, after.of);
  const torn = new Set<number>();
  gone.forEach((is, v) => void (is && torn.add(before.of[v])));
  // The largest rest of each component; of equals the one that is met first.
  const rest = new Map<number, number>();
  for (const v of left) {
    const known = rest.get(before.of[v]);
    if (known === undefined || sizes.get(after.of[v])! > sizes.get(known)!)
      rest.set(before.of[v], after.of[v]);
  }
  return {
    components: { before: before.count, after: sizes.size },
    largest: {
      before: before.size[0] ?? 0,
      after: [...sizes.values()].reduce((most, size) => Math.max(most, size), 0),
    },
    cutOff: [...left].filter((v) => torn.has(before.of[v]) && rest.get(before.of[v]) !== after.of[v]),
    reach: pairsIn(sizes) / pairsIn(sizesOf(left, before.of)),
  };
}

function sizesOf(nodes: Uint32Array, of: ArrayLike<number>): Map<number, number> {
  const sizes = new Map<number, number>();
  for (const v of nodes) sizes.set(of[v], (sizes.get(of[v]) ?? 0) + 1);
  return sizes;
}

function pairsIn(sizes: ReadonlyMap<number, number>): number {
  let pairs = 0;
  for (const size of sizes.values()) pairs += (size * (size - 1)) / 2;
  return pairs;
}

/**
 * Nodes of the largest component, over all nodes that the network had, when the first 0, 1, 2 … of an order are taken out. The nodes are
 * put back from the last to the first, joining components, so that the time is that of one search.
 */
export function removalCurve(graph: Graph, order: readonly number[]): Float64Array {
  const n = graph.nodeCount;
  const turn = new Int32Array(n).fill(order.length);
  order.forEach((v, i) => (turn[v] = i));
  const neighbours: number[][] = order.map(() => []);
  const parent = Int32Array.from({ length: n }, (_, v) => v);
  const size = new Uint32Array(n).fill(1);
  const find = (v: number): number => {
    while (parent[v] !== v) v = parent[v] = parent[parent[v]];
    return v;
  };
  let largest = n > order.length ? 1 : 0;
  const join = (a: number, b: number): void => {
    let [x, y] = [find(a), find(b)];
    if (x === y) return;
    if (size[x] < size[y]) [x, y] = [y, x];
    parent[y] = x;
    size[x] += size[y];
    if (size[x] > largest) largest = size[x];
  };
  for (let e = 0; e < graph.source.length; e++) {
    const [s, t] = [graph.source[e], graph.target[e]];
    // A tie is there again when its end that was taken out first is put back.
    const first = Math.min(turn[s], turn[t]);
    if (first === order.length) join(s, t);
    else neighbours[first].push(turn[s] === first ? t : s);
  }
  const curve = new Float64Array(order.length + 1);
  for (let i = order.length; i >= 0; i--) {
    curve[i] = n > 0 ? largest / n : 0;
    if (i === 0) break;
    const v = order[i - 1];
    if (largest === 0) largest = 1;
    for (const u of neighbours[i - 1]) join(v, u);
  }
  return curve;
}

/** Mean of the curves of nodes taken out at random, over some seeded orders. */
export function randomRemovalCurve(
  graph: Graph,
  most: number,
  { runs, seed }: { runs: number; seed: number },
): Float64Array {
  const chance = new Random(seed);
  const count = Math.min(most, graph.nodeCount);
  const mean = new Float64Array(count + 1);
  for (let run = 0; run < runs; run++) {
    const order = chance.shuffle(chance.sample(graph.nodeCount, count));
    removalCurve(graph, order).forEach((share, i) => (mean[i] += share / runs));
  }
  return mean;
}

/** The nodes with the highest values, falling; of equal ones the first. Nodes without a value are left out. */
export function topNodes(values: ArrayLike<number>, count: number): number[] {
  const given = Array.from({ length: values.length }, (_, v) => v).filter((v) => !Number.isNaN(values[v]));
  return given.sort((a, b) => values[b] - values[a] || a - b).slice(0, count);
}
