import type { Csr } from '../../graph/csr';
import { Random } from '../../random';

export interface Closeness {
  /**
   * Nodes that are reached, over the sum of their distances, times the share of all others that is reached (Wasserman & Faust 1994), so that
   * a small component does not look central. 0 to 1; NaN for a node that reaches none.
   */
  readonly closeness: Float64Array;
  /** Mean of 1 / distance over all others, those out of reach counting 0 (Boldi & Vigna 2014). 0 to 1. */
  readonly harmonic: Float64Array;
  /** Start nodes; null when all were used, and the values are exact. */
  readonly pivots: number | null;
}

/** Starts x ties that an exact run may take: some ten seconds on one core. */
const EXACT_WORK = 2e9;

/**
 * How near every node is to all others, without direction or weights: one search from each node; above a size from sampled nodes, each
 * standing for as many others (Eppstein & Wang 2004). Self-loops have no part in it. Time O(nodes x ties).
 * @param rows without direction: every tie stands in both rows
 */
export function closeness(
  rows: Csr,
  { seed = 1, progress }: { seed?: number; progress?: (share: number) => void } = {},
): Closeness {
  const n = rows.nodeCount;
  const work = rows.neighbour.length + n;
  const isExact = n * work <= EXACT_WORK;
  const all = Uint32Array.from({ length: n }, (_, v) => v);
  const starts = isExact
    ? all
    : new Random(seed).shuffle(all).slice(0, Math.max(100, Math.floor(EXACT_WORK / work)));
  // A distance is the same both ways: what a start finds is added up at the nodes it finds.
  const found = new Float64Array(n);
  const far = new Float64Array(n);
  const near = new Float64Array(n);
  const distance = new Int32Array(n).fill(-1);
  const queue = new Uint32Array(n);
  for (let s = 0; s < starts.length; s++) {
    if ((s & 63) === 0) progress?.(s / starts.length);
    let tail = 1;
    queue[0] = starts[s];
    distance[starts[s]] = 0;
    for (let head = 0; head < tail; head++) {
      const v = queue[head];
      const d = distance[v];
      if (d > 0) {
        found[v]++;
        far[v] += d;
        near[v] += 1 / d;
      }
      for (let i = rows.offset[v], end = rows.offset[v + 1]; i < end; i++) {
        const u = rows.neighbour[i];
        if (distance[u] >= 0) continue;
        distance[u] = d + 1;
        queue[tail++] = u;
      }
    }
    for (let q = 0; q < tail; q++) distance[queue[q]] = -1;
  }
  // A sampled node may be a start itself, which tells it nothing.
  const isStart = new Uint8Array(n);
  for (const v of starts) isStart[v] = 1;
  const others = (v: number): number => starts.length - isStart[v];
  return {
    closeness: far.map((sum, v) => (sum > 0 ? (found[v] / others(v)) * (found[v] / sum) : NaN)),
    harmonic: near.map((sum, v) => (others(v) > 0 ? sum / others(v) : 0)),
    pivots: isExact ? null : starts.length,
  };
}
