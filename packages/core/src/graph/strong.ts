import type { Csr } from './csr';

export interface StrongComponents {
  readonly count: number;
  readonly largest: number;
  /** Component of each node, in the order in which they are found. */
  readonly of: Uint32Array;
}

/** Parts in which every node is reached from every other along the direction of ties (Tarjan 1972, SIAM J. Computing 1). Time O(nodes + ties). */
export function strongComponents({ nodeCount: n, offset, neighbour }: Csr): StrongComponents {
  const met = new Int32Array(n).fill(-1);
  const low = new Int32Array(n);
  const isOpen = new Uint8Array(n);
  const of = new Uint32Array(n);
  const next = offset.slice(0, n);
  const path = new Uint32Array(n);
  const open = new Uint32Array(n);
  let opened = 0;
  let order = 0;
  let count = 0;
  let largest = 0;
  for (let start = 0; start < n; start++) {
    if (met[start] >= 0) continue;
    let top = 0;
    path[0] = start;
    while (top >= 0) {
      const v = path[top];
      if (met[v] < 0) {
        met[v] = low[v] = order++;
        open[opened++] = v;
        isOpen[v] = 1;
      }
      if (next[v] < offset[v + 1]) {
        const u = neighbour[next[v]++];
        if (met[u] < 0) path[++top] = u;
        else if (isOpen[u] && met[u] < low[v]) low[v] = met[u];
        continue;
      }
      top--;
      if (top >= 0 && low[v] < low[path[top]]) low[path[top]] = low[v];
      if (low[v] !== met[v]) continue;
      let size = 0;
      for (let u = -1; u !== v;) {
        u = open[--opened];
        isOpen[u] = 0;
        of[u] = count;
        size++;
      }
      count++;
      if (size > largest) largest = size;
    }
  }
  return { count, largest, of };
}
