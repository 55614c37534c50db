import type { Csr } from '../graph/csr';
import { Random } from '../random';

export interface BetweennessOptions {
  /** Rows in which paths run along the given direction; false when each tie stands in both rows. */
  directed: boolean;
  /** Divide by the number of pairs, so that the range is 0 to 1. */
  normalised?: boolean;
  /** Number of start nodes to sample; without it every node is a start, and the result is exact. */
  pivots?: number;
  /** Seed for the choice of pivots. */
  seed?: number;
  /** Called now and then with the share done, 0 to 1; may throw to stop. */
  progress?: (share: number) => void;
}

/**
 * Betweenness of every node: over all pairs of other nodes, the share of their shortest paths that run through it.
 * Unweighted; self-loops have no part in it. Brandes (2001), J. Mathematical Sociology 25. With `pivots` it is estimated from
 * that many start nodes, each scaled up (Brandes & Pich 2007, Int. J. Bifurcation and Chaos 17).
 * Range: 0 to (n - 1)(n - 2), half of it without direction; 0 to 1 when normalised. Time O(nodes x ties), memory O(nodes).
 */
export function betweenness(rows: Csr, options: BetweennessOptions): Float64Array {
  const { nodeCount: n, offset, neighbour } = rows;
  const result = new Float64Array(n);
  if (n < 3) return result;
  const starts = chooseStarts(n, options.pivots ?? n, options.seed ?? 1);
  const distance = new Int32Array(n).fill(-1);
  const paths = new Float64Array(n);
  const share = new Float64Array(n);
  const queue = new Uint32Array(n);
  // Ties on shortest paths, in the order in which they are met: those from the node at place q of the queue end at lastTight[q].
  const tight = new Uint32Array(neighbour.length);
  const lastTight = new Uint32Array(n);

  for (let s = 0; s < starts.length; s++) {
    if ((s & 63) === 0) options.progress?.(s / starts.length);
    const start = starts[s];
    let head = 0;
    let tail = 1;
    let met = 0;
    queue[0] = start;
    distance[start] = 0;
    paths[start] = 1;
    while (head < tail) {
      const v = queue[head];
      const next = distance[v] + 1;
      const count = paths[v];
      for (let i = offset[v], end = offset[v + 1]; i < end; i++) {
        const u = neighbour[i];
        const d = distance[u];
        if (d < 0) {
          distance[u] = next;
          paths[u] = count;
          queue[tail++] = u;
          tight[met++] = u;
        } else if (d === next) {
          paths[u] += count;
          tight[met++] = u;
        }
      }
      lastTight[head++] = met;
    }
    for (let q = tail - 1; q >= 0; q--) {
      const v = queue[q];
      let sum = 0;
      for (let i = q > 0 ? lastTight[q - 1] : 0, end = lastTight[q]; i < end; i++) sum += share[tight[i]];
      const through = sum * paths[v];
      if (q > 0) result[v] += through;
      share[v] = (1 + through) / paths[v];
    }
    for (let q = 0; q < tail; q++) distance[queue[q]] = -1;
  }
  let scale = n / starts.length;
  if (!options.directed) scale /= 2;
  if (options.normalised) scale *= (options.directed ? 1 : 2) / ((n - 1) * (n - 2));
  for (let v = 0; v < n; v++) result[v] *= scale;
  return result;
}

function chooseStarts(n: number, wanted: number, seed: number): Uint32Array {
  const all = Uint32Array.from({ length: n }, (_, v) => v);
  if (wanted >= n) return all;
  return new Random(seed).shuffle(all).slice(0, Math.max(1, wanted));
}

/** Starts x ties that an exact run may take before it is sampled: some ten seconds on one core. */
export const EXACT_WORK = 2e9;

/** How many start nodes to use so that the work stays within a few seconds; undefined means all, exact. */
export function pivotsFor(rows: Csr): number | undefined {
  const tiesSeen = rows.neighbour.length + rows.nodeCount;
  if (rows.nodeCount * tiesSeen <= EXACT_WORK) return undefined;
  return Math.max(100, Math.floor(EXACT_WORK / tiesSeen));
}
