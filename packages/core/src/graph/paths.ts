import { inRows, neighbourRows, outRows, type Csr } from './csr';
import type { Graph } from './graph';

/** What lies on the shortest paths from one node to another. */
export interface PathsBetween {
  /** Steps from one to the other; null where there is no way. */
  readonly steps: number | null;
  /** Nodes on any of the shortest paths, both ends included, ascending. */
  readonly nodes: readonly number[];
  /** Edges on any of them, ascending. */
  readonly edges: readonly number[];
}

/**
 * All shortest paths between two nodes, by steps: what lies on one of them is as far from both ends together as these are apart.
 * @param way whether ties are followed from their source to their target only, or either way
 */
export function pathsBetween(graph: Graph, from: number, to: number, way: 'along' | 'either'): PathsBetween {
  const outward = stepsFrom(way === 'either' ? neighbourRows(graph) : outRows(graph), from);
  const steps = outward[to];
  if (steps < 0) return { steps: null, nodes: [], edges: [] };
  const inward = stepsFrom(way === 'either' ? neighbourRows(graph) : inRows(graph), to);
  const nodes: number[] = [];
  for (let v = 0; v < graph.nodeCount; v++)
    if (outward[v] >= 0 && inward[v] >= 0 && outward[v] + inward[v] === steps) nodes.push(v);
  const edges: number[] = [];
  const isStep = (a: number, b: number): boolean =>
    outward[a] >= 0 && inward[b] >= 0 && outward[a] + 1 + inward[b] === steps;
  for (let e = 0; e < graph.source.length; e++) {
    const [a, b] = [graph.source[e], graph.target[e]];
    if (isStep(a, b) || (way === 'either' && isStep(b, a))) edges.push(e);
  }
  return { steps, nodes, edges };
}

/** Steps from a node to each node, -1 where there is no way. */
function stepsFrom(rows: Csr, from: number): Int32Array {
  const steps = new Int32Array(rows.nodeCount).fill(-1);
  steps[from] = 0;
  let reached = [from];
  for (let step = 1; reached.length > 0; step++) {
    const further: number[] = [];
    for (const v of reached)
      for (let i = rows.offset[v]; i < rows.offset[v + 1]; i++) {
        const u = rows.neighbour[i];
        if (steps[u] >= 0) continue;
        steps[u] = step;
        further.push(u);
      }
    reached = further;
  }
  return steps;
}
