import type { Graph } from '../graph/graph';

/**
 * Modularity of a grouping: the share of tie weight inside groups, less what would be expected from the strengths alone. Newman &
 * Girvan (2004), Phys. Rev. E 69; with resolution as in Reichardt & Bornholdt (2006), Phys. Rev. E 74; by direction, where it is asked
 * for, as in Leicht & Newman (2008), Phys. Rev. Lett. 100. Self-loops count in nothing: posts that address nobody say nothing of groups.
 * Range -1 to 1; 0 for a graph without ties.
 */
export function modularity(graph: Graph, group: ArrayLike<number>, resolution = 1, directed = false): number {
  let groups = 0;
  for (let v = 0; v < graph.nodeCount; v++) groups = Math.max(groups, group[v] + 1);
  const out = new Float64Array(groups);
  const into = directed ? new Float64Array(groups) : out;
  let inside = 0;
  let total = 0;
  for (let e = 0; e < graph.source.length; e++) {
    if (graph.source[e] === graph.target[e]) continue;
    const a = group[graph.source[e]];
    const b = group[graph.target[e]];
    const w = graph.weight[e];
    total += w;
    out[a] += w;
    into[b] += w;
    if (a === b) inside += w;
  }
  if (total === 0) return 0;
  const ends = directed ? total : 2 * total;
  let expected = 0;
  for (let g = 0; g < groups; g++) expected += (out[g] / ends) * (into[g] / ends);
  return inside / total - resolution * expected;
}
