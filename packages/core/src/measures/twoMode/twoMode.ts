import type { Csr } from '../../graph/csr';

/** Steps that redundancy may take. */
const MOST_WORK = 2e9;

/**
 * Of the pairs of partners of each node the share that is tied through another node too: 1 where nothing would change in the ties of its
 * partners without it (Latapy, Magnien & Del Vecchio 2008, Social Networks 30). 0 to 1, NaN with fewer than two partners. Null for a network
 * that would take too long.
 * @param rows of a two-mode network, without direction
 */
export function redundancy(
  { nodeCount: n, offset, neighbour }: Csr,
  progress?: (share: number) => void,
): Float64Array | null {
  if (workOf({ nodeCount: n, offset, neighbour }) > MOST_WORK) return null;
  const result = new Float64Array(n).fill(NaN);
  const isPartner = new Int32Array(n).fill(-1);
  const seenFrom = new Int32Array(n).fill(-1);
  for (let v = 0; v < n; v++) {
    if ((v & 255) === 0) progress?.(v / n);
    const degree = offset[v + 1] - offset[v];
    if (degree < 2) continue;
    for (let i = offset[v]; i < offset[v + 1]; i++) isPartner[neighbour[i]] = v;
    let pairs = 0;
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      const u = neighbour[i];
      // A partner has each of its pairs once from either end: a mark that differs for each v and u.
      const mark = i;
      for (let j = offset[u]; j < offset[u + 1]; j++) {
        const w = neighbour[j];
        if (w === v) continue;
        for (let k = offset[w]; k < offset[w + 1]; k++) {
          const x = neighbour[k];
          if (x === u || isPartner[x] !== v || seenFrom[x] === mark) continue;
          seenFrom[x] = mark;
          pairs++;
        }
      }
    }
    result[v] = pairs / (degree * (degree - 1));
  }
  return result;
}

function workOf({
  nodeCount: n,
  offset,
  neighbour,
}: Pick<Csr, 'nodeCount' | 'offset' | 'neighbour'>): number {
  let level = Float64Array.from({ length: n }, (_, v) => offset[v + 1] - offset[v]);
  for (let step = 0; step < 2; step++) {
    const next = new Float64Array(n);
    for (let v = 0; v < n; v++)
      for (let i = offset[v]; i < offset[v + 1]; i++) next[v] += level[neighbour[i]];
    level = next;
  }
  return level.reduce((a, b) => a + b, 0);
}

/** Partners of each node over all nodes of the other sort (Borgatti & Everett 1997, Social Networks 19); 0 to 1. @param sort of each node */
export function degreeBySort({ nodeCount: n, offset }: Csr, sort: readonly string[]): Float64Array {
  const size = new Map<string, number>();
  for (const one of sort) size.set(one, (size.get(one) ?? 0) + 1);
  return Float64Array.from({ length: n }, (_, v) => (offset[v + 1] - offset[v]) / (n - size.get(sort[v])!));
}

/** Pairs that are tied over those of one node of either sort (Borgatti & Everett 1997); 0 to 1, NaN where a sort is empty. */
export function twoModeDensity({ nodeCount, neighbour }: Csr, sort: readonly string[]): number {
  const first = sort.filter((one) => one === sort[0]).length;
  const pairs = first * (nodeCount - first);
  return pairs > 0 ? neighbour.length / 2 / pairs : NaN;
}
