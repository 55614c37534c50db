import type { Csr } from '../../graph/csr';

/** Steps between all pairs of nodes, row by row; out of reach is -1. Memory 2 bytes x nodes squared. */
export function allDistances({ nodeCount: n, offset, neighbour }: Csr): Int16Array {
  const distance = new Int16Array(n * n).fill(-1);
  const queue = new Uint32Array(n);
  for (let start = 0; start < n; start++) {
    const row = start * n;
    distance[row + start] = 0;
    queue[0] = start;
    let tail = 1;
    for (let head = 0; head < tail; head++) {
      const v = queue[head];
      const next = distance[row + v] + 1;
      for (let i = offset[v]; i < offset[v + 1]; i++) {
        const u = neighbour[i];
        if (distance[row + u] >= 0) continue;
        distance[row + u] = next;
        queue[tail++] = u;
      }
    }
  }
  return distance;
}
