import Graphology from 'graphology';
import { makeGraph, Random, type Graph } from '@pebble/core';

/** A random network in our form; graphology's is made when it is asked for, so that ours is not measured beside its objects. */
export interface BenchNetwork {
  readonly graph: Graph;
  reference(): Graphology;
}

/** A random directed network in groups, with many ties to few nodes. */
export function network(seed: number, nodes: number, edges: number): BenchNetwork {
  const chance = new Random(seed);
  const groups = Math.max(2, Math.round(Math.sqrt(nodes) / 3));
  const size = Math.floor(nodes / groups);
  const source = new Uint32Array(edges);
  const target = new Uint32Array(edges);
  const seen = new Set<number>();
  for (let e = 0; e < edges;) {
    const s = chance.below(nodes);
    const group = Math.min(groups - 1, Math.floor(s / size));
    const within = Math.floor(chance.real() ** 2 * size);
    const t = chance.chance(0.8) ? group * size + within : chance.below(nodes);
    if (s === t || seen.has(s * nodes + t)) continue;
    seen.add(s * nodes + t);
    source[e] = s;
    target[e++] = t;
  }
  return {
    graph: makeGraph(nodes, source, target),
    reference() {
      const made = new Graphology({ type: 'directed' });
      for (let v = 0; v < nodes; v++) made.addNode(v);
      for (let e = 0; e < edges; e++) made.addDirectedEdge(source[e], target[e], { weight: 1 });
      return made;
    },
  };
}
