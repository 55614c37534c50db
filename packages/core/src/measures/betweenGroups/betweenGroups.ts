import type { Csr } from '../../graph/csr';

export interface BetweenGroups {
  /** 1 - the sum of the squared shares of partners in each group (Guimerà & Amaral 2005, Nature 433); 0 to 1, NaN for isolates. */
  readonly participation: Float64Array;
  /** (E - I) / (E + I) for E partners outside and I inside the own group (Krackhardt & Stern 1988); -1 to 1, NaN for isolates. */
  readonly outwardness: Float64Array;
  /** Different groups of the partners. */
  readonly groupsTouched: Uint32Array;
}

/**
 * How the partners of nodes are spread over groups, each partner counting once.
 * @param rows without direction and self-loops
 * @param group of each node
 */
export function betweenGroups(
  { nodeCount: n, offset, neighbour }: Csr,
  group: ArrayLike<number>,
): BetweenGroups {
  const participation = new Float64Array(n).fill(NaN);
  const outwardness = new Float64Array(n).fill(NaN);
  const groupsTouched = new Uint32Array(n);
  const partners = new Map<number, number>();
  for (let v = 0; v < n; v++) {
    const degree = offset[v + 1] - offset[v];
    if (degree === 0) continue;
    partners.clear();
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      const g = group[neighbour[i]];
      partners.set(g, (partners.get(g) ?? 0) + 1);
    }
    let squares = 0;
    for (const count of partners.values()) squares += (count / degree) ** 2;
    const inside = partners.get(group[v]) ?? 0;
    participation[v] = 1 - squares;
    outwardness[v] = (degree - 2 * inside) / degree;
    groupsTouched[v] = partners.size;
  }
  return { participation, outwardness, groupsTouched };
}
