import Graphology from 'graphology';
import { makeGraph, Random, type Graph } from '@pebble/core';

/** A random directed network in groups, with many ties to few nodes, in our form and in graphology's. */
export function network(seed: number, nodes: number, edges: number): { graph: Graph; reference: Graphology } {
  const chance = new Random(seed);
  const groups = Math.max(2, Math.round(Math.sqrt(nodes) / 3));
  const size = Math.floor(nodes / groups);
  const reference = new Graphology({ type: 'directed' });
  for (let v = 0; v < nodes; v++) reference.addNode(v);
  const source = new Uint32Array(edges);
  const target = new Uint32Array(edges);
  for (let e = 0; e < edges;) {
    const s = chance.below(nodes);
    const group = Math.min(groups - 1, Math.floor(s / size));
    const within = Math.floor(chance.real() ** 2 * size);
    const t = chance.chance(0.8) ? group * size + within : chance.below(nodes);
    if (s === t || reference.hasDirectedEdge(s, t)) continue;
    reference.addDirectedEdge(s, t, { weight: 1 });
    source[e] = s;
    target[e++] = t;
  }
  return { graph: makeGraph(nodes, source, target), reference };
}
