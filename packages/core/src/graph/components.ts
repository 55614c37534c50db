import type { Graph } from './graph';

/** Weak components: which one each node is in; 0 is the largest, then by falling size, ties by lowest node. */
export interface Components {
  readonly count: number;
  readonly of: Uint32Array;
  readonly size: Uint32Array;
}

/** Finds weak components by union-find with path halving (Tarjan & van Leeuwen 1984, J. ACM 31). */
export function weakComponents(graph: Graph): Components {
  const { nodeCount, source, target } = graph;
  const parent = new Uint32Array(nodeCount);
  for (let v = 0; v < nodeCount; v++) parent[v] = v;
  const root = (v: number): number => {
    while (parent[v] !== v) {
      parent[v] = parent[parent[v]];
      v = parent[v];
    }
    return v;
  };
  for (let e = 0; e < source.length; e++) {
    const a = root(source[e]);
    const b = root(target[e]);
    if (a < b) parent[b] = a;
    else if (b < a) parent[a] = b;
  }
  const size = new Uint32Array(nodeCount);
  const roots: number[] = [];
  for (let v = 0; v < nodeCount; v++) {
    const r = root(v);
    if (size[r]++ === 0) roots.push(r);
  }
  roots.sort((a, b) => size[b] - size[a] || a - b);
  const rank = new Uint32Array(nodeCount);
  roots.forEach((r, i) => (rank[r] = i));
  return {
    count: roots.length,
    of: Uint32Array.from({ length: nodeCount }, (_, v) => rank[root(v)]),
    size: Uint32Array.from(roots, (r) => size[r]),
  };
}
