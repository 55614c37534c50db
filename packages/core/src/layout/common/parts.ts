import { weakComponents, type Components } from '../../graph/components';
import { keepPart } from '../../graph/filter';
import type { Graph } from '../../graph/graph';

/** A component as a graph of its own; its nodes by their numbers in the whole. */
interface Part {
  readonly graph: Graph;
  readonly node: Uint32Array;
}

/** One part for each component of two nodes or more, the largest first. */
export function componentParts(graph: Graph, components: Components = weakComponents(graph)): Part[] {
  const members: number[][] = Array.from({ length: components.count }, () => []);
  for (let v = 0; v < graph.nodeCount; v++) members[components.of[v]].push(v);
  const edges: number[][] = Array.from({ length: components.count }, () => []);
  for (let e = 0; e < graph.source.length; e++) edges[components.of[graph.source[e]]].push(e);
  const number = new Uint32Array(graph.nodeCount);
  return members
    .filter((nodes) => nodes.length > 1)
    .map((nodes, c) => {
      if (nodes.length > graph.nodeCount / 2) {
        const part = keepPart(
          graph,
          (v) => components.of[v] === c,
          () => true,
        );
        return { graph: part.graph, node: part.node };
      }
      nodes.forEach((v, i) => (number[v] = i));
      return {
        graph: {
          nodeCount: nodes.length,
          source: Uint32Array.from(edges[c], (e) => number[graph.source[e]]),
          target: Uint32Array.from(edges[c], (e) => number[graph.target[e]]),
          weight: Float64Array.from(edges[c], (e) => graph.weight[e]),
        },
        node: Uint32Array.from(nodes),
      };
    });
}
