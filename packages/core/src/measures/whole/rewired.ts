import { neighbourRows, outRows, withoutSelfLoops } from '../../graph/csr';
import { makeGraph, type Graph } from '../../graph/graph';
import type { Random } from '../../random';

/** Exchanges that are tried for each tie: ten are enough to forget where ties were (common practice). */
const TRIES = 10;

/**
 * A network by chance in which every node has its degree (of a directed one its in- and out-degree): two ties a-b and c-d become a-d and
 * c-b, again and again (Maslov & Sneppen 2002), never to a node itself nor to a pair that is tied already. Weights do not stay.
 */
export function rewired(graph: Graph, directed: boolean, chance: Random): Graph {
  const rows = withoutSelfLoops(directed ? outRows(graph) : neighbourRows(graph));
  const n = graph.nodeCount;
  const source: number[] = [];
  const target: number[] = [];
  for (let v = 0; v < n; v++)
    for (let i = rows.offset[v]; i < rows.offset[v + 1]; i++) {
      if (!directed && rows.neighbour[i] < v) continue;
      source.push(v);
      target.push(rows.neighbour[i]);
    }
  const key = (a: number, b: number): number => (directed || a < b ? a * n + b : b * n + a);
  const tied = new Set(source.map((a, e) => key(a, target[e])));
  const ties = source.length;
  for (let tries = 0; ties > 1 && tries < TRIES * ties; tries++) {
    const [e, f] = [chance.below(ties), chance.below(ties)];
    // Without direction either end of the second tie may be taken.
    if (!directed && chance.below(2) === 1) [source[f], target[f]] = [target[f], source[f]];
    const [a, b, c, d] = [source[e], target[e], source[f], target[f]];
    if (a === d || c === b || tied.has(key(a, d)) || tied.has(key(c, b))) continue;
    tied.delete(key(a, b));
    tied.delete(key(c, d));
    tied.add(key(a, d));
    tied.add(key(c, b));
    target[e] = d;
    target[f] = b;
  }
  return makeGraph(n, source, target);
}
