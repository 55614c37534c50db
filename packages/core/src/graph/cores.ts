import type { Csr } from './csr';

/**
 * How deep in the network a node stands: the largest k for which it is in a part where each node has k partners in that part (Seidman 1983),
 * found by taking away the node with fewest partners again and again (Batagelj & Zaveršnik 2003). 0 for isolates. Time O(ties).
 * @param rows without direction and self-loops
 */
export function coreNumbers({ nodeCount: n, offset, neighbour }: Csr): Uint32Array {
  const core = new Uint32Array(n);
  let most = 0;
  for (let v = 0; v < n; v++) {
    core[v] = offset[v + 1] - offset[v];
    if (core[v] > most) most = core[v];
  }
  // Nodes in the order of their partners that are left; start[k] is the first with k of them.
  const start = new Uint32Array(most + 2);
  for (const k of core) start[k + 1]++;
  for (let k = 0; k <= most; k++) start[k + 1] += start[k];
  const order = new Uint32Array(n);
  const place = new Uint32Array(n);
  const next = start.slice();
  for (let v = 0; v < n; v++) {
    place[v] = next[core[v]]++;
    order[place[v]] = v;
  }
  for (let at = 0; at < n; at++) {
    const v = order[at];
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      const u = neighbour[i];
      if (core[u] <= core[v]) continue;
      // It changes places with the first of its own number, and goes down by one.
      const first = start[core[u]];
      const w = order[first];
      order[first] = u;
      order[place[u]] = w;
      place[w] = place[u];
      place[u] = first;
      start[core[u]]++;
      core[u]--;
    }
  }
  return core;
}
