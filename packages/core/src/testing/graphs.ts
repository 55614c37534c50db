import fc from 'fast-check';
import { makeGraph, type Graph } from '../graph/graph';

/** All of n nodes tied with each other, each pair once. */
export function complete(n: number): Graph {
  const pairs = Array.from({ length: n }, (_, a) => Array.from({ length: a }, (__, b) => [b, a])).flat();
  return makeGraph(
    n,
    pairs.map(([a]) => a),
    pairs.map(([, b]) => b),
  );
}

/** Any ties among ten nodes, self-loops and repeated ones too. */
export const anyGraphs: fc.Arbitrary<Graph> = fc
  .array(fc.tuple(fc.nat(9), fc.nat(9)), { maxLength: 40 })
  .map((pairs) =>
    makeGraph(
      10,
      pairs.map(([a]) => a),
      pairs.map(([, b]) => b),
    ),
  );
