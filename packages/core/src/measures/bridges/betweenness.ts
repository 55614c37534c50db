import type { Csr } from '../../graph/csr';
import { Random } from '../../random';

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

/** What the paths from some start nodes give each node, and the squares of what each start gives. */
export interface PathSums {
  readonly sums: Float64Array;
  readonly squares: Float64Array;
}

/** Adds up what the shortest paths from start nodes give every node between. */
export type PathKernel = (rows: Csr, starts: Uint32Array, progress?: (share: number) => void) => PathSums;

export interface Betweenness {
  readonly values: Float64Array;
  /** Standard error of each value where starts were sampled; null when all were used, and the values are exact. */
  readonly error: Float64Array | null;
}

/** Starts are added up in so many parts, whoever computes them, so that the sums are the same to the last bit. */
const PARTS = 8;

/**
 * Betweenness of every node: over all pairs of other nodes, the share of their shortest paths that run through it.
 * Unweighted; self-loops have no part in it. Brandes (2001), J. Mathematical Sociology 25. With `pivots` it is estimated from
 * that many start nodes, each scaled up (Brandes & Pich 2007, Int. J. Bifurcation and Chaos 17).
 * Range: 0 to (n - 1)(n - 2), half of it without direction; 0 to 1 when normalised. Time O(nodes x ties), memory O(nodes + ties).
 */
export function betweenness(rows: Csr, options: BetweennessOptions): Float64Array {
  return betweennessBy(pathsInSteps, rows, options).values;
}

/** Betweenness with paths by a kernel of one's choice: in steps, or by length. */
export function betweennessBy(kernel: PathKernel, rows: Csr, options: BetweennessOptions): Betweenness {
  const starts = chooseStarts(rows.nodeCount, options.pivots ?? rows.nodeCount, options.seed ?? 1);
  const parts = partsOf(starts).map((part, p, all) =>
    kernel(rows, part, (share) => options.progress?.((p + share) / all.length)),
  );
  return finishBetweenness(rows.nodeCount, parts, starts.length, options);
}

/** The parts of the starts that are added up one by one; they may be given to different threads. */
export function partsOf(starts: Uint32Array): Uint32Array[] {
  const size = Math.max(1, Math.ceil(starts.length / PARTS));
  const parts = [];
  for (let at = 0; at < starts.length; at += size) parts.push(starts.subarray(at, at + size));
  return parts;
}

/** The start nodes: all, or some by a seed. */
export function chooseStarts(n: number, wanted: number, seed: number): Uint32Array {
  const all = Uint32Array.from({ length: n }, (_, v) => v);
  if (wanted >= n) return all;
  return new Random(seed).shuffle(all).slice(0, Math.max(1, wanted));
}

/** Adds up the parts in their order and scales what comes out. */
export function finishBetweenness(
  n: number,
  parts: readonly PathSums[],
  starts: number,
  { directed, normalised }: Pick<BetweennessOptions, 'directed' | 'normalised'>,
): Betweenness {
  const values = new Float64Array(n);
  if (n < 3 || starts === 0) return { values, error: null };
  const squares = new Float64Array(n);
  for (const part of parts)
    for (let v = 0; v < n; v++) {
      values[v] += part.sums[v];
      squares[v] += part.squares[v];
    }
  let scale = n / starts;
  if (!directed) scale /= 2;
  if (normalised) scale *= (directed ? 1 : 2) / ((n - 1) * (n - 2));
  const error = starts < n && starts > 1 ? new Float64Array(n) : null;
  for (let v = 0; v < n; v++) {
    // A sample without replacement: of the spread among starts, less what all of them would leave.
    const variance = (squares[v] - values[v] ** 2 / starts) / (starts - 1);
    if (error) error[v] = scale * Math.sqrt(Math.max(0, variance) * starts * (1 - starts / n));
    values[v] *= scale;
  }
  return { values, error };
}

/** Shortest paths counted in steps (Brandes 2001). */
export const pathsInSteps: PathKernel = (rows, starts, progress) => {
  const { nodeCount: n, offset, neighbour } = rows;
  const sums = new Float64Array(n);
  const squares = new Float64Array(n);
  const distance = new Int32Array(n).fill(-1);
  const paths = new Float64Array(n);
  const share = new Float64Array(n);
  const queue = new Uint32Array(n);
  // Ties on shortest paths, in the order in which they are met: those from the node at place q of the queue end at lastTight[q].
  const tight = new Uint32Array(neighbour.length);
  const lastTight = new Uint32Array(n);

  for (let s = 0; s < starts.length; s++) {
    if ((s & 63) === 0) progress?.(s / starts.length);
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
      if (q > 0) {
        sums[v] += through;
        squares[v] += through * through;
      }
      share[v] = (1 + through) / paths[v];
    }
    for (let q = 0; q < tail; q++) distance[queue[q]] = -1;
  }
  return { sums, squares };
};

/** Starts x ties that an exact run may take before it is sampled: some ten seconds on one core. */
export const EXACT_WORK = 2e9;

/** How many start nodes to use so that the work stays within a few seconds; undefined means all, exact. */
export function pivotsFor(rows: Csr, most = EXACT_WORK): number | undefined {
  const tiesSeen = rows.neighbour.length + rows.nodeCount;
  if (rows.nodeCount * tiesSeen <= most) return undefined;
  // Large networks do not stay in the cache: a step takes longer there.
  return Math.max(100, Math.floor((0.6 * most) / tiesSeen));
}
