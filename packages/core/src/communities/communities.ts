import type { Graph } from '../graph/graph';
import { Random } from '../random';
import { labelRun } from './labels';
import { leidenRun } from './leiden';
import { firstLevel, type Level } from './level';
import { louvainRun } from './louvain';
import { modularity } from './modularity';

export type CommunityMethod = 'louvain' | 'leiden' | 'labels';

export interface CommunityOptions {
  readonly method?: CommunityMethod;
  /** Higher gives more and smaller communities; 1 is plain modularity. Labels know none. */
  readonly resolution: number;
  readonly seed: number;
  /** Number of runs; the one with the highest modularity is kept, the earliest of equals. */
  readonly runs: number;
  /** Whether modularity goes by the direction of ties. */
  readonly directed?: boolean;
  progress?(share: number): void;
}

export interface Communities {
  readonly count: number;
  /** Community of each node: 0 is the largest, then by falling size; equal sizes by lowest node. */
  readonly of: Uint32Array;
  readonly size: Uint32Array;
  /** At resolution 1, by direction where that was asked for. */
  readonly modularity: number;
  /** False where labels went on changing in the run that was kept. */
  readonly converged: boolean;
}

/** Communities by one of the methods, best of several seeded runs. Parallel ties are added up. */
export function communities(graph: Graph, options: CommunityOptions): Communities {
  const { resolution, runs, seed, directed = false } = options;
  const first = firstLevel(graph, directed);
  const chance = new Random(seed);
  let best: { group: Uint32Array; converged: boolean } | null = null;
  let bestValue = -Infinity;
  for (let run = 0; run < runs; run++) {
    options.progress?.(run / runs);
    const found = oneRun(first, options, new Random(chance.uint32()));
    const value = modularity(graph, found.group, resolution, directed);
    if (value > bestValue + 1e-12) {
      best = found;
      bestValue = value;
    }
  }
  const { count, of, size } = orderBySize(best?.group ?? new Uint32Array(graph.nodeCount));
  return {
    count,
    of,
    size,
    modularity: modularity(graph, of, 1, directed),
    converged: best?.converged ?? true,
  };
}

/** One run of a method, without an order of its groups. */
export function oneRun(
  first: Level,
  { method = 'louvain', resolution }: Pick<CommunityOptions, 'method' | 'resolution'>,
  chance: Random,
): { group: Uint32Array; converged: boolean } {
  switch (method) {
    case 'louvain':
      return { group: louvainRun(first, resolution, chance), converged: true };
    case 'leiden':
      return { group: leidenRun(first, resolution, chance), converged: true };
    case 'labels':
      return labelRun(first, chance);
  }
}

/** Renumbers groups so that 0 is the largest; equal sizes are ordered by their lowest node. */
export function orderBySize(group: ArrayLike<number>): { count: number; of: Uint32Array; size: Uint32Array } {
  const place = new Map<number, number>();
  const of = new Uint32Array(group.length);
  const sizes: number[] = [];
  for (let v = 0; v < of.length; v++) {
    let at = place.get(group[v]);
    if (at === undefined) place.set(group[v], (at = sizes.push(0) - 1));
    of[v] = at;
    sizes[at]++;
  }
  const order = [...sizes.keys()].sort((a, b) => sizes[b] - sizes[a] || a - b);
  const rank = new Uint32Array(order.length);
  order.forEach((at, i) => (rank[at] = i));
  for (let v = 0; v < of.length; v++) of[v] = rank[of[v]];
  return { count: order.length, of, size: Uint32Array.from(order, (at) => sizes[at]) };
}
