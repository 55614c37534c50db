import type { Random } from '../random';
import { renumber, type Level } from './level';

interface Moved {
  readonly group: Uint32Array;
  readonly count: number;
  readonly moved: boolean;
}

/**
 * Moves single nodes to the neighbouring community with the highest gain of modularity until no move gains. Nodes wait in a queue; those
 * whose neighbourhood changed come back into it.
 * @param start the community of each node at first, numbers below the number of nodes; each its own where it is left out
 */
export function moveNodes(
  { rows, strength, total }: Level,
  resolution: number,
  chance: Random,
  start?: Uint32Array,
): Moved {
  const { nodeCount: n, offset, neighbour, weight } = rows;
  const group = start ? start.slice() : Uint32Array.from({ length: n }, (_, v) => v);
  // Strengths of communities, out and in, beside each other.
  const sums = new Float64Array(2 * n);
  const size = new Uint32Array(n);
  for (let v = 0; v < n; v++) {
    sums[2 * group[v]] += strength[2 * v];
    sums[2 * group[v] + 1] += strength[2 * v + 1];
    size[group[v]]++;
  }
  const scale = total > 0 ? resolution / total : 0;
  const queue = chance.shuffle(Uint32Array.from({ length: n }, (_, v) => v));
  const waiting = new Uint8Array(n).fill(1);
  let head = 0;
  let left = n;
  const toGroup = new Float64Array(n);
  const touched = new Uint32Array(n);
  const empty: number[] = [];
  for (let g = n - 1; g >= 0; g--) if (size[g] === 0) empty.push(g);
  let moved = false;
  while (left > 0) {
    const v = queue[head];
    head = head + 1 === n ? 0 : head + 1;
    left--;
    waiting[v] = 0;
    const own = group[v];
    let touchedCount = 0;
    for (let i = offset[v], end = offset[v + 1]; i < end; i++) {
      const u = neighbour[i];
      if (u === v) continue;
      const g = group[u];
      if (toGroup[g] === 0) touched[touchedCount++] = g;
      toGroup[g] += weight[i];
    }
    const out = strength[2 * v];
    const into = strength[2 * v + 1];
    sums[2 * own] -= out;
    sums[2 * own + 1] -= into;
    let bestGroup = own;
    let bestGain = toGroup[own] - scale * (out * sums[2 * own + 1] + into * sums[2 * own]);
    const stay = bestGain;
    for (let t = 0; t < touchedCount; t++) {
      const g = touched[t];
      const gain = toGroup[g] - scale * (out * sums[2 * g + 1] + into * sums[2 * g]);
      if (gain > bestGain || (gain === bestGain && g < bestGroup && bestGroup !== own)) {
        bestGain = gain;
        bestGroup = g;
      }
      toGroup[g] = 0;
    }
    toGroup[own] = 0;
    const least = 1e-10 * (out + into);
    // A node that loses by every community leaves them all, where there is one without nodes.
    if (bestGain < -least && size[own] > 1 && empty.length > 0) bestGroup = empty.at(-1)!;
    else if (bestGain <= stay + least) bestGroup = own;
    sums[2 * bestGroup] += out;
    sums[2 * bestGroup + 1] += into;
    if (bestGroup === own) continue;
    if (size[bestGroup]++ === 0) empty.splice(empty.lastIndexOf(bestGroup), 1);
    if (--size[own] === 0) empty.push(own);
    group[v] = bestGroup;
    moved = true;
    for (let i = offset[v], end = offset[v + 1]; i < end; i++) {
      const u = neighbour[i];
      if (waiting[u] === 0 && group[u] !== bestGroup && u !== v) {
        let slot = head + left;
        if (slot >= n) slot -= n;
        queue[slot] = u;
        waiting[u] = 1;
        left++;
      }
    }
  }
  return { ...renumber(group), moved };
}
