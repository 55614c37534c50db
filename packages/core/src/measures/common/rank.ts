import type { Csr } from '../../graph/csr';
import { leadingVector } from '../whole/leadingVector';

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
 * Eigenvector centrality (Bonacich 1987): a node is as high as the nodes tied with it are, by weight; the largest is 1, whatever the weights
 * are counted in. Of several components the one with the strongest ties has values, the others come to 0. Without ties nothing is higher than
 * anything: all NaN.
 * @param rows without direction
 */
export function eigenvector(rows: Csr): Ranked {
  const { nodeCount: n, offset, neighbour } = rows;
  const weight = besideLargest(rows);
  const { vector, iterations, converged } = leadingVector(n, (from, into) => {
    for (let v = 0; v < n; v++) {
      let sum = 0;
      for (let i = offset[v], end = offset[v + 1]; i < end; i++) sum += weight[i] * from[neighbour[i]];
      into[v] = sum;
    }
  });
  scale(vector, largest(vector));
  return { values: vector, iterations, converged };
}

export interface HubsAndAuthorities {
  /** High for nodes whose ties lead to good authorities, and for those to which ties of good hubs lead. Each sums to 1. */
  readonly hubs: Float64Array;
  readonly authorities: Float64Array;
  readonly iterations: number;
  readonly converged: boolean;
}

/**
 * Hubs and authorities (Kleinberg 1999, J. ACM 46), by weight; all NaN without ties.
 * @param rows of ties out of each node
 */
export function hubsAndAuthorities(rows: Csr): HubsAndAuthorities {
  const { nodeCount: n, offset, neighbour } = rows;
  const weight = besideLargest(rows);
  const point = (hubs: Float64Array): Float64Array => {
    const authorities = new Float64Array(n);
    for (let v = 0; v < n; v++)
      for (let i = offset[v], end = offset[v + 1]; i < end; i++)
        authorities[neighbour[i]] += weight[i] * hubs[v];
    return authorities;
  };
  // What hubs make of authorities, and these of hubs again.
  const { vector, iterations, converged } = leadingVector(n, (from, into) => {
    const authorities = point(from);
    for (let v = 0; v < n; v++) {
      let sum = 0;
      for (let i = offset[v], end = offset[v + 1]; i < end; i++) sum += weight[i] * authorities[neighbour[i]];
      into[v] = sum;
    }
  });
  const authorities = weight.length > 0 ? point(vector) : vector.slice();
  scale(authorities, sum(authorities));
  scale(vector, sum(vector));
  return { hubs: vector, authorities, iterations, converged };
}

/** Weights as shares of the largest one, so that neither very small nor very large ones overflow. */
function besideLargest({ weight }: Csr): Float64Array {
  const most = largest(weight);
  return weight.map((w) => w / most);
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

/** What is to be said of values that did not come to rest. */
export function unrested(
  name: string,
  { converged, iterations }: Pick<Ranked, 'converged' | 'iterations'>,
): string[] {
  return converged
    ? []
    : [`${name} did not come to rest in ${iterations} rounds: its values are not to be trusted.`];
}
