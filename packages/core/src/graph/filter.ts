import type { Graph } from './graph';

/** A part of a graph: the kept edges and nodes by their numbers in the whole, and the graph of only these. */
export interface Part {
  readonly graph: Graph;
  /** node[i] is the number in the whole of node i of the part. */
  readonly node: Uint32Array;
  readonly edge: Uint32Array;
}

/** Keeps the nodes and edges that the tests accept; an edge stays only if both of its ends do. */
export function keepPart(
  graph: Graph,
  keepNode: (node: number) => boolean,
  keepEdge: (edge: number) => boolean,
): Part {
  const { nodeCount, source, target, weight } = graph;
  const renumbered = new Int32Array(nodeCount).fill(-1);
  const node: number[] = [];
  for (let v = 0; v < nodeCount; v++) {
    if (keepNode(v)) renumbered[v] = node.push(v) - 1;
  }
  const edge: number[] = [];
  for (let e = 0; e < source.length; e++) {
    if (renumbered[source[e]] >= 0 && renumbered[target[e]] >= 0 && keepEdge(e)) edge.push(e);
  }
  return {
    graph: {
      nodeCount: node.length,
      source: Uint32Array.from(edge, (e) => renumbered[source[e]]),
      target: Uint32Array.from(edge, (e) => renumbered[target[e]]),
      weight: Float64Array.from(edge, (e) => weight[e]),
    },
    node: Uint32Array.from(node),
    edge: Uint32Array.from(edge),
  };
}
