import type { Csr } from '../graph/csr';

/** What came of an iteration that goes on until nothing changes. */
export interface Ranked {
  readonly values: Float64Array;
  readonly iterations: number;
  /** False when it was ended before it came to rest; the values are not to be trusted then. */
  readonly converged: boolean;
}

const MOST_ITERATIONS = 1000;
const REST = 1e-10;

/**
 * PageRank (Page et al. 1999): where somebody would be who follows ties by their weight, and now and then begins anywhere. A node without
 * ties out of it passes on to all. Sums to 1.
 * @param damping how often a tie is followed, 0 to 1
 * @param rest it ends when all values together change by less
 */
export function pagerank(rows: Csr, damping = 0.85, rest = REST): Ranked {
  const { nodeCount: n, offset, neighbour, weight } = rows;
  const strength = rowSums(rows);
  let values = new Float64Array(n).fill(n > 0 ? 1 / n : 0);
  for (let iteration = 1; iteration <= MOST_ITERATIONS; iteration++) {
    let stuck = 0;
    for (let v = 0; v < n; v++) if (strength[v] === 0) stuck += values[v];
    const next = new Float64Array(n).fill((1 - damping + damping * stuck) / n);
    for (let v = 0; v < n; v++) {
      const share = (damping * values[v]) / strength[v];
      for (let i = offset[v], end = offset[v + 1]; i < end; i++) next[neighbour[i]] += share * weight[i];
    }
    const change = difference(values, next);
    values = next;
    if (change < rest) return { values, iterations: iteration, converged: true };
  }
  return { values, iterations: MOST_ITERATIONS, converged: n === 0 };
}

/**
 * Eigenvector centrality (Bonacich 1987): a node is as high as the nodes tied with it are, by weight; the largest is 1. Of several components
 * the one with the strongest ties has values, the others come to 0. The matrix is moved by one, which changes no value and lets two-sided
 * networks come to rest.
 * @param rows without direction
 */
export function eigenvector({ nodeCount: n, offset, neighbour, weight }: Csr): Ranked {
  let values = new Float64Array(n).fill(1);
  for (let iteration = 1; iteration <= MOST_ITERATIONS; iteration++) {
    const next = values.slice();
    for (let v = 0; v < n; v++)
      for (let i = offset[v], end = offset[v + 1]; i < end; i++) next[v] += weight[i] * values[neighbour[i]];
    scale(next, largest(next));
    const change = difference(values, next) / Math.max(1, n);
    values = next;
    if (change < REST) return { values, iterations: iteration, converged: true };
  }
  return { values, iterations: MOST_ITERATIONS, converged: n === 0 };
}

export interface HubsAndAuthorities {
  /** High for nodes whose ties lead to good authorities, and for those to which ties of good hubs lead. Each sums to 1. */
  readonly hubs: Float64Array;
  readonly authorities: Float64Array;
  readonly iterations: number;
  readonly converged: boolean;
}

/** Hubs and authorities (Kleinberg 1999, J. ACM 46), by weight. @param rows of ties out of each node */
export function hubsAndAuthorities({ nodeCount: n, offset, neighbour, weight }: Csr): HubsAndAuthorities {
  let hubs = new Float64Array(n).fill(n > 0 ? 1 / n : 0);
  let authorities = new Float64Array(n);
  for (let iteration = 1; iteration <= MOST_ITERATIONS; iteration++) {
    authorities = new Float64Array(n);
    const next = new Float64Array(n);
    for (let v = 0; v < n; v++)
      for (let i = offset[v], end = offset[v + 1]; i < end; i++)
        authorities[neighbour[i]] += weight[i] * hubs[v];
    scale(authorities, sum(authorities));
    for (let v = 0; v < n; v++)
      for (let i = offset[v], end = offset[v + 1]; i < end; i++)
        next[v] += weight[i] * authorities[neighbour[i]];
    scale(next, sum(next));
    const change = difference(hubs, next);
    hubs = next;
    if (change < REST) return { hubs, authorities, iterations: iteration, converged: true };
  }
  return { hubs, authorities, iterations: MOST_ITERATIONS, converged: n === 0 };
}

function rowSums({ nodeCount, offset, weight }: Csr): Float64Array {
  const sums = new Float64Array(nodeCount);
  for (let v = 0; v < nodeCount; v++) for (let i = offset[v]; i < offset[v + 1]; i++) sums[v] += weight[i];
  return sums;
}

function sum(values: Float64Array): number {
  let total = 0;
  for (const value of values) total += value;
  return total;
}

function largest(values: Float64Array): number {
  let most = 0;
  for (const value of values) if (value > most) most = value;
  return most;
}

function scale(values: Float64Array, by: number): void {
  if (by > 0) for (let v = 0; v < values.length; v++) values[v] /= by;
}

function difference(a: Float64Array, b: Float64Array): number {
  let change = 0;
  for (let v = 0; v < a.length; v++) change += Math.abs(a[v] - b[v]);
  return change;
}
