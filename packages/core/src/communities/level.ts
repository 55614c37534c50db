import { neighbourRows, withoutSelfLoops, type Csr } from '../graph/csr';
import type { Graph } from '../graph/graph';

/** What one node of a level stands for: rows between nodes, weight within, strength in both directions. */
export interface Level {
  /** Without direction. */
  readonly rows: Csr;
  /** Weight inside the node, each tie once. */
  readonly within: Float64Array;
  /** Strength of ties out of and into each node, at 2v and 2v + 1; without direction half of the strength in both. */
  readonly strength: Float64Array;
  /** Weight of all ties. */
  readonly total: number;
}

/** The level on which every node stands for itself; ties to itself count in nothing. @param directed whether modularity goes by the direction of ties */
export function firstLevel(graph: Graph, directed: boolean): Level {
  const rows = withoutSelfLoops(neighbourRows(graph));
  const { nodeCount } = graph;
  const within = new Float64Array(nodeCount);
  const strength = new Float64Array(2 * nodeCount);
  let total = 0;
  const { source, target, weight } = graph;
  for (let e = 0; e < source.length; e++) {
    const s = source[e];
    const t = target[e];
    if (s === t) continue;
    const w = weight[e];
    total += w;
    if (directed) {
      strength[2 * s] += w;
      strength[2 * t + 1] += w;
    } else {
      strength[2 * s] += w / 2;
      strength[2 * s + 1] += w / 2;
      strength[2 * t] += w / 2;
      strength[2 * t + 1] += w / 2;
    }
  }
  return { rows, within, strength, total };
}

/** Renumbers groups to 0, 1, 2 ... in the order in which they first appear. */
export function renumber(group: Uint32Array): { group: Uint32Array; count: number } {
  const rank = new Int32Array(group.length).fill(-1);
  let count = 0;
  for (let v = 0; v < group.length; v++) {
    if (rank[group[v]] < 0) rank[group[v]] = count++;
    group[v] = rank[group[v]];
  }
  return { group, count };
}

/** Makes each community one node of the next level; ties within it become its inner weight. */
export function contract({ rows, within, strength, total }: Level, group: Uint32Array, count: number): Level {
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
  const newStrength = new Float64Array(2 * count);
  for (let v = 0; v < n; v++) {
    newStrength[2 * group[v]] += strength[2 * v];
    newStrength[2 * group[v] + 1] += strength[2 * v + 1];
  }
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
    strength: newStrength,
    total,
  };
}
