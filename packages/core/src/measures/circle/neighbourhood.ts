import type { Csr } from '../../graph/csr';

/**
 * Of all pairs of partners of a node, the share that is tied itself (Watts & Strogatz 1998). 0 to 1; NaN for a node with fewer than two
 * partners, which has no pair. Time O(sum of squared degrees).
 * @param rows without direction and self-loops
 */
export function localClustering({ nodeCount: n, offset, neighbour }: Csr): Float64Array {
  const tied = tiedPartners({ nodeCount: n, offset, neighbour });
  return Float64Array.from(tied, (count, v) => {
    const degree = offset[v + 1] - offset[v];
    return degree < 2 ? NaN : count / (degree * (degree - 1));
  });
}

/** For each node, how often two of its partners are tied with each other: each such pair counts twice, once from either end. */
export function tiedPartners({
  nodeCount: n,
  offset,
  neighbour,
}: Pick<Csr, 'nodeCount' | 'offset' | 'neighbour'>): Float64Array {
  const tied = new Float64Array(n);
  const partnerOf = new Int32Array(n).fill(-1);
  for (let v = 0; v < n; v++) {
    for (let i = offset[v]; i < offset[v + 1]; i++) partnerOf[neighbour[i]] = v;
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      const u = neighbour[i];
      for (let j = offset[u]; j < offset[u + 1]; j++) if (partnerOf[neighbour[j]] === v) tied[v]++;
    }
  }
  return tied;
}

/**
 * How much a node's partners are one and the same circle (constraint, Burt 1992): the sum over its partners j of the square of the share of
 * its ties that goes to j, straight and by way of other partners. Low for brokers between circles, above 1 in small closed ones; NaN for isolates.
 * @param rows without direction and self-loops; the weight of a pair is that of both directions
 */
export function constraint({ nodeCount: n, offset, neighbour, weight }: Csr): Float64Array {
  const strength = new Float64Array(n);
  for (let v = 0; v < n; v++) for (let i = offset[v]; i < offset[v + 1]; i++) strength[v] += weight[i];
  const result = new Float64Array(n).fill(NaN);
  // The share of a node's ties that goes to each of its partners, straight and by others.
  const share = new Float64Array(n);
  const isPartner = new Uint8Array(n);
  for (let v = 0; v < n; v++) {
    if (strength[v] === 0) continue;
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      isPartner[neighbour[i]] = 1;
      share[neighbour[i]] = weight[i] / strength[v];
    }
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      const q = neighbour[i];
      const to = weight[i] / strength[v];
      for (let j = offset[q]; j < offset[q + 1]; j++)
        if (isPartner[neighbour[j]]) share[neighbour[j]] += (to * weight[j]) / strength[q];
    }
    let sum = 0;
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      sum += share[neighbour[i]] ** 2;
      share[neighbour[i]] = 0;
      isPartner[neighbour[i]] = 0;
    }
    result[v] = sum;
  }
  return result;
}
