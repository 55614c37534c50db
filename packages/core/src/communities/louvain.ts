import { neighbourRows, type Csr } from '../graph/csr';
import type { Graph } from '../graph/graph';
import { Random } from '../random';
import { modularity } from './modularity';

export interface LouvainOptions {
  /** Higher gives more and smaller communities; 1 is plain modularity. */
  resolution: number;
  seed: number;
  /** Number of runs; the one with the highest modularity is kept, the earliest of equals. */
  runs: number;
  progress?: (share: number) => void;
}

export interface Communities {
  readonly count: number;
  /** Community of each node: 0 is the largest, then by falling size; equal sizes by lowest node. */
  readonly of: Uint32Array;
  readonly size: Uint32Array;
  readonly modularity: number;
}

/** What one node of a level stands for: rows between nodes, weight within, strength. */
interface Level {
  readonly rows: Csr;
  /** Weight inside the node, each tie once. */
  readonly within: Float64Array;
}

/**
 * Communities by the Louvain method (Blondel et al. 2008, J. Stat. Mech. P10008) on the graph without direction, best of
 * several seeded runs. Local moves are made from a queue of nodes whose neighbourhood changed.
 */
export function louvain(graph: Graph, options: LouvainOptions): Communities {
  const first = firstLevel(neighbourRows(graph));
  const chance = new Random(options.seed);
  let best: Uint32Array | null = null;
  let bestValue = -Infinity;
  for (let run = 0; run < options.runs; run++) {
    options.progress?.(run / options.runs);
    const found = oneRun(first, options.resolution, new Random(chance.uint32()));
    const value = modularity(graph, found, options.resolution);
    if (value > bestValue + 1e-12) {
      best = found;
      bestValue = value;
    }
  }
  const { count, of, size } = orderBySize(best ?? new Uint32Array(graph.nodeCount));
  return { count, of, size, modularity: modularity(graph, of, 1) };
}

/** Renumbers groups so that 0 is the largest; equal sizes are ordered by their lowest node. */
export function orderBySize(group: ArrayLike<number>): { count: number; of: Uint32Array; size: Uint32Array } {
  const sizes = new Map<number, number>();
  for (const g of Array.from(group)) sizes.set(g, (sizes.get(g) ?? 0) + 1);
  const order = [...sizes.keys()].map((g, first) => ({ g, first, size: sizes.get(g)! }));
  order.sort((a, b) => b.size - a.size || a.first - b.first);
  const rank = new Map(order.map(({ g }, i) => [g, i]));
  return {
    count: order.length,
    of: Uint32Array.from({ length: group.length }, (_, v) => rank.get(group[v])!),
    size: Uint32Array.from(order, ({ size }) => size),
  };
}

function firstLevel(rows: Csr): Level {
  const within = new Float64Array(rows.nodeCount);
  for (let v = 0; v < rows.nodeCount; v++) {
    for (let i = rows.offset[v]; i < rows.offset[v + 1]; i++) {
      if (rows.neighbour[i] === v) within[v] += rows.weight[i];
    }
  }
  return { rows, within };
}

function oneRun(first: Level, resolution: number, chance: Random): Uint32Array {
  let level = first;
  const of = Uint32Array.from({ length: first.rows.nodeCount }, (_, v) => v);
  for (;;) {
    const { group, count, moved } = moveNodes(level, resolution, chance);
    for (let v = 0; v < of.length; v++) of[v] = group[of[v]];
    if (!moved || count === level.rows.nodeCount) return of;
    level = contract(level, group, count);
  }
}

/** Moves single nodes to the neighbouring community with the highest gain until no move gains. */
function moveNodes(
  { rows, within }: Level,
  resolution: number,
  chance: Random,
): { group: Uint32Array; count: number; moved: boolean } {
  const { nodeCount: n, offset, neighbour, weight } = rows;
  const strength = new Float64Array(n);
  let total = 0;
  for (let v = 0; v < n; v++) {
    let sum = 2 * within[v];
    for (let i = offset[v], end = offset[v + 1]; i < end; i++) {
      if (neighbour[i] !== v) sum += weight[i];
    }
    strength[v] = sum;
    total += sum;
  }
  const group = Uint32Array.from({ length: n }, (_, v) => v);
  const groupStrength = strength.slice();
  const scale = total > 0 ? resolution / total : 0;

  const queue = chance.shuffle(Uint32Array.from({ length: n }, (_, v) => v));
  const waiting = new Uint8Array(n).fill(1);
  let head = 0;
  let left = n;
  const toGroup = new Float64Array(n);
  const touched = new Uint32Array(n);
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
    const k = strength[v];
    groupStrength[own] -= k;
    let bestGroup = own;
    let bestGain = toGroup[own] - scale * k * groupStrength[own];
    const stay = bestGain;
    for (let t = 0; t < touchedCount; t++) {
      const g = touched[t];
      const gain = toGroup[g] - scale * k * groupStrength[g];
      if (gain > bestGain || (gain === bestGain && g < bestGroup && bestGroup !== own)) {
        bestGain = gain;
        bestGroup = g;
      }
      toGroup[g] = 0;
    }
    toGroup[own] = 0;
    if (bestGain <= stay + 1e-10 * k) bestGroup = own;
    groupStrength[bestGroup] += k;
    if (bestGroup === own) continue;
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

/** Renumbers groups to 0, 1, 2 ... in the order in which they first appear. */
function renumber(group: Uint32Array): { group: Uint32Array; count: number } {
  const rank = new Int32Array(group.length).fill(-1);
  let count = 0;
  for (let v = 0; v < group.length; v++) {
    if (rank[group[v]] < 0) rank[group[v]] = count++;
    group[v] = rank[group[v]];
  }
  return { group, count };
}

/** Makes each community one node of the next level; ties within it become its inner weight. */
function contract({ rows, within }: Level, group: Uint32Array, count: number): Level {
  const { nodeCount: n, offset, neighbour, weight } = rows;
  const start = new Uint32Array(count + 1);
  for (let v = 0; v < n; v++) start[group[v] + 1]++;
  for (let g = 0; g < count; g++) start[g + 1] += start[g];
  const member = new Uint32Array(n);
  const fill = start.slice();
  for (let v = 0; v < n; v++) member[fill[group[v]]++] = v;

  const newOffset = new Uint32Array(count + 1);
  const newNeighbour = new Uint32Array(neighbour.length);
  const newWeight = new Float64Array(neighbour.length);
  const newWithin = new Float64Array(count);
  const sum = new Float64Array(count);
  const touched = new Uint32Array(count);
  let at = 0;
  for (let g = 0; g < count; g++) {
    let touchedCount = 0;
    let inner = 0;
    for (let m = start[g]; m < start[g + 1]; m++) {
      const v = member[m];
      newWithin[g] += within[v];
      for (let i = offset[v]; i < offset[v + 1]; i++) {
        if (neighbour[i] === v) continue;
        const h = group[neighbour[i]];
        if (h === g) {
          inner += weight[i];
        } else {
          if (sum[h] === 0) touched[touchedCount++] = h;
          sum[h] += weight[i];
        }
      }
    }
    newWithin[g] += inner / 2;
    for (let t = 0; t < touchedCount; t++) {
      newNeighbour[at] = touched[t];
      newWeight[at++] = sum[touched[t]];
      sum[touched[t]] = 0;
    }
    newOffset[g + 1] = at;
  }
  return {
    rows: {
      nodeCount: count,
      offset: newOffset,
      neighbour: newNeighbour.slice(0, at),
      weight: newWeight.slice(0, at),
    },
    within: newWithin,
  };
}
