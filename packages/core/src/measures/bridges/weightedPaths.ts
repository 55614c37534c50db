import type { PathKernel } from './betweenness';

/** Lengths that differ by less than this share are equal: sums of the same weights in another order are not the same bits. Weights must not be further apart than that. */
const EQUAL = 1e-12;

/**
 * Shortest paths by length, where a tie of weight w is 1 / w long, so that strong ties are short (Newman 2001, Phys. Rev. E 64; Brandes 2001
 * with Dijkstra 1959). Ties with a weight of 0 or below have no length and are left out. Time O(starts x ties x log nodes).
 */
export const pathsByLength: PathKernel = ({ nodeCount: n, offset, neighbour, weight }, starts, progress) => {
  const sums = new Float64Array(n);
  const squares = new Float64Array(n);
  const far = new Float64Array(n).fill(Infinity);
  const paths = new Float64Array(n);
  const share = new Float64Array(n);
  const settled = new Uint8Array(n);
  const order = new Uint32Array(n);
  const heap = new Heap(n);
  for (let s = 0; s < starts.length; s++) {
    if ((s & 31) === 0) progress?.(s / starts.length);
    const start = starts[s];
    let count = 0;
    far[start] = 0;
    paths[start] = 1;
    heap.put(start, far);
    while (heap.size > 0) {
      const v = heap.take(far);
      settled[v] = 1;
      order[count++] = v;
      for (let i = offset[v], end = offset[v + 1]; i < end; i++) {
        if (!(weight[i] > 0)) continue;
        const u = neighbour[i];
        if (settled[u] === 1) continue;
        const length = far[v] + 1 / weight[i];
        if (length < far[u] * (1 - EQUAL)) {
          far[u] = length;
          paths[u] = paths[v];
          heap.put(u, far);
        } else if (length <= far[u] * (1 + EQUAL)) paths[u] += paths[v];
      }
    }
    for (let q = count - 1; q >= 0; q--) {
      const v = order[q];
      let sum = 0;
      for (let i = offset[v], end = offset[v + 1]; i < end; i++) {
        if (!(weight[i] > 0)) continue;
        const u = neighbour[i];
        const length = far[v] + 1 / weight[i];
        if (u !== v && Math.abs(length - far[u]) <= far[u] * EQUAL) sum += share[u];
      }
      const through = sum * paths[v];
      if (q > 0) {
        sums[v] += through;
        squares[v] += through * through;
      }
      share[v] = (1 + through) / paths[v];
    }
    for (let q = 0; q < count; q++) {
      far[order[q]] = Infinity;
      settled[order[q]] = 0;
    }
  }
  return { sums, squares };
};

/** Nodes by their distance, the nearest first; a node that comes nearer moves up. */
class Heap {
  size = 0;
  private readonly nodes: Uint32Array;
  private readonly place: Int32Array;

  constructor(capacity: number) {
    this.nodes = new Uint32Array(capacity);
    this.place = new Int32Array(capacity).fill(-1);
  }

  put(node: number, far: Float64Array): void {
    let at = this.place[node] >= 0 ? this.place[node] : this.size++;
    while (at > 0) {
      const above = (at - 1) >> 1;
      const other = this.nodes[above];
      if (far[other] <= far[node]) break;
      this.nodes[at] = other;
      this.place[other] = at;
      at = above;
    }
    this.nodes[at] = node;
    this.place[node] = at;
  }

  take(far: Float64Array): number {
    const first = this.nodes[0];
    this.place[first] = -1;
    const last = this.nodes[--this.size];
    if (this.size === 0) return first;
    let at = 0;
    for (let below = 1; below < this.size; below = 2 * at + 1) {
      if (below + 1 < this.size && far[this.nodes[below + 1]] < far[this.nodes[below]]) below++;
      const other = this.nodes[below];
      if (far[last] <= far[other]) break;
      this.nodes[at] = other;
      this.place[other] = at;
      at = below;
    }
    this.nodes[at] = last;
    this.place[last] = at;
    return first;
  }
}
