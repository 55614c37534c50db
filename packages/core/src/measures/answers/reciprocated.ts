import type { Csr } from '../../graph/csr';

/**
 * Of all partners of a node, the share with which ties lead both ways. 0 to 1; NaN for isolates.
 * @param out rows of ties out of each node, @param into rows of those into it, both without self-loops and ascending
 */
export function reciprocatedShare(out: Csr, into: Csr): Float64Array {
  return Float64Array.from({ length: out.nodeCount }, (_, v) => {
    let both = 0;
    let i = out.offset[v];
    let j = into.offset[v];
    while (i < out.offset[v + 1] && j < into.offset[v + 1]) {
      const [a, b] = [out.neighbour[i], into.neighbour[j]];
      if (a === b) both++;
      if (a <= b) i++;
      if (b <= a) j++;
    }
    const partners = out.offset[v + 1] - out.offset[v] + into.offset[v + 1] - into.offset[v] - both;
    return partners === 0 ? NaN : both / partners;
  });
}
