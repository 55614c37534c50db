import type { Graph } from '../graph/graph';

/**
 * Modularity of a grouping, without regard to direction: the share of tie weight inside groups, less what would be
 * expected from the strengths alone. Newman & Girvan (2004), Phys. Rev. E 69; with resolution as in Reichardt &
 * Bornholdt (2006), Phys. Rev. E 74. A self-loop adds twice its weight to its node's strength.
 * Range -1 to 1; 0 for a graph without ties.
 */
export function modularity(graph: Graph, group: ArrayLike<number>, resolution = 1): number {
  let groups = 0;
  for (let v = 0; v < graph.nodeCount; v++) groups = Math.max(groups, group[v] + 1);
  const strength = new Float64Array(groups);
  let inside = 0;
  let total = 0;
  for (let e = 0; e < graph.source.length; e++) {
    const a = group[graph.source[e]];
    const b = group[graph.target[e]];
    const w = graph.weight[e];
    total += w;
    strength[a] += w;
    strength[b] += w;
    if (a === b) inside += w;
  }
  if (total === 0) return 0;
  let expected = 0;
  for (let g = 0; g < groups; g++) expected += (strength[g] / (2 * total)) ** 2;
  return inside / total - resolution * expected;
}
