import type { Graph } from '../graph/graph';
import { Random } from '../random';
import { resampled } from '../graph/resampled';
import { oneRun, type CommunityOptions } from './communities';
import { firstLevel } from './level';

export interface Stability {
  /** Of each node the share of runs in which it stays with its group, 0 to 1. */
  readonly node: Float64Array;
  /** For each pair of groups the share of runs in which most of either are one group, row by row; 1 on the diagonal. */
  readonly merged: Float64Array;
  readonly runs: number;
}

export interface StabilityOptions extends Pick<
  CommunityOptions,
  'method' | 'resolution' | 'directed' | 'seed' | 'progress'
> {
  readonly runs: number;
  /**
   * Whether each run sees other messages, drawn anew from those that there are.
   */
  readonly resample: boolean;
}

/**
 * How sure a grouping is: communities are found again in many seeded runs. A node stays with its group in a run when it is where most of
 * that group are.
 * @param group of each node, numbers from 0 on
 */
export function stability(
  graph: Graph,
  group: ArrayLike<number>,
  { runs, resample, ...options }: StabilityOptions,
): Stability {
  const n = graph.nodeCount;
  let groups = 0;
  for (let v = 0; v < n; v++) groups = Math.max(groups, group[v] + 1);
  const chance = new Random(options.seed);
  const same = firstLevel(graph, options.directed ?? false);
  const node = new Float64Array(n);
  const merged = new Float64Array(groups * groups);
  for (let run = 0; run < runs; run++) {
    options.progress?.(run / runs);
    const own = new Random(chance.uint32());
    const level = resample ? firstLevel(resampled(graph, own), options.directed ?? false) : same;
    const found = oneRun(level, options, own).group;
    const home = homes(group, groups, found);
    for (let v = 0; v < n; v++) if (found[v] === home[group[v]]) node[v]++;
    for (let g = 0; g < groups; g++)
      for (let h = 0; h < groups; h++) if (home[g] === home[h]) merged[g * groups + h]++;
  }
  return { node: node.map((count) => count / runs), merged: merged.map((count) => count / runs), runs };
}

/** For each group the found one in which most of its nodes are; of equals the one that is met first. */
function homes(group: ArrayLike<number>, groups: number, found: Uint32Array): Int32Array {
  const counts: Map<number, number>[] = Array.from({ length: groups }, () => new Map<number, number>());
  for (let v = 0; v < found.length; v++) {
    const count = counts[group[v]];
    count.set(found[v], (count.get(found[v]) ?? 0) + 1);
  }
  return Int32Array.from(counts, (count) => {
    let home = -1;
    let most = 0;
    for (const [at, nodes] of count)
      if (nodes > most) {
        most = nodes;
        home = at;
      }
    return home;
  });
}
