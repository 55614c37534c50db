import type { Csr } from '../../graph/csr';

export interface Cuts {
  /** Nodes that lose the largest part that remains of their component when the node goes; 0 for one that holds nothing together. */
  readonly cutsOff: Uint32Array;
  /** Ties that alone hold two parts together, as pairs with the lower node first, in the order of the pairs. */
  readonly bridges: readonly (readonly [number, number])[];
}

/**
 * Which nodes and ties hold a network together: cut nodes and bridges by one search in depth (Tarjan 1972, Hopcroft & Tarjan 1973), and how
 * many nodes each cut node would part from the largest rest. Time O(nodes + ties).
 * @param rows without direction and self-loops, each pair once
 */
export function cuts({ nodeCount: n, offset, neighbour }: Csr): Cuts {
  const met = new Int32Array(n).fill(-1);
  const low = new Int32Array(n);
  const parent = new Int32Array(n).fill(-1);
  /** Nodes below each in the search, itself included. */
  const below = new Uint32Array(n).fill(1);
  /** Of the parts below a node that hang by it alone, all nodes and those of the largest. */
  const hanging = new Uint32Array(n);
  const largest = new Uint32Array(n);
  const next = offset.slice(0, n);
  const root = new Uint32Array(n);
  const bridges: [number, number][] = [];
  let count = 0;
  const stack = new Uint32Array(n);
  for (let start = 0; start < n; start++) {
    if (met[start] >= 0) continue;
    let top = 0;
    stack[0] = start;
    met[start] = low[start] = count++;
    while (top >= 0) {
      const v = stack[top];
      root[v] = start;
      if (next[v] < offset[v + 1]) {
        const u = neighbour[next[v]++];
        if (met[u] < 0) {
          parent[u] = v;
          met[u] = low[u] = count++;
          stack[++top] = u;
        } else if (u !== parent[v] && met[u] < low[v]) low[v] = met[u];
        continue;
      }
      top--;
      const p = parent[v];
      if (p < 0) continue;
      below[p] += below[v];
      if (low[v] < low[p]) low[p] = low[v];
      if (low[v] > met[p]) bridges.push(p < v ? [p, v] : [v, p]);
      if (low[v] >= met[p]) {
        hanging[p] += below[v];
        if (below[v] > largest[p]) largest[p] = below[v];
      }
    }
  }
  const cutsOff = Uint32Array.from({ length: n }, (_, v) => {
    const rest = below[root[v]] - 1 - hanging[v];
    return hanging[v] + rest - Math.max(largest[v], rest);
  });
  return { cutsOff, bridges: bridges.sort((a, b) => a[0] - b[0] || a[1] - b[1]) };
}
