import fc from 'fast-check';
import Graphology from 'graphology';
import { singleSourceLength } from 'graphology-shortest-path/unweighted';
import { pathsBetween } from './paths';
import { makeGraph } from './graph';

const graphOf = (nodeCount: number, ties: readonly (readonly [number, number])[]) =>
  makeGraph(
    nodeCount,
    ties.map(([a]) => a),
    ties.map(([, b]) => b),
  );

describe('pathsBetween', () => {
  // A square 0-1-3, 0-2-3 with a tail 3-4, and a node 5 apart.
  const square = graphOf(6, [[0, 1], [0, 2], [1, 3], [2, 3], [3, 4]]); // prettier-ignore

  it('finds all that lies on a shortest path', () => {
    expect(pathsBetween(square, 0, 3, 'along')).toEqual({
      steps: 2,
      nodes: [0, 1, 2, 3],
      edges: [0, 1, 2, 3],
    });
    expect(pathsBetween(square, 1, 2, 'either').nodes).toEqual([0, 1, 2, 3]);
  });

  it('follows the direction of ties where it is asked to', () => {
    expect(pathsBetween(square, 4, 0, 'along')).toEqual({ steps: null, nodes: [], edges: [] });
    expect(pathsBetween(square, 4, 0, 'either').steps).toBe(3);
  });

  it('says that there is no way, and that a node is no step from itself', () => {
    expect(pathsBetween(square, 0, 5, 'either').steps).toBeNull();
    expect(pathsBetween(square, 2, 2, 'along')).toEqual({ steps: 0, nodes: [2], edges: [] });
  });

  it('counts as many steps as a general-purpose library (graphology-shortest-path)', () => {
    const tie = fc.tuple(fc.nat(11), fc.nat(11));
    fc.assert(
      fc.property(fc.array(tie, { maxLength: 30 }), fc.nat(11), fc.nat(11), (ties, from, to) => {
        const reference = new Graphology({ type: 'directed', multi: true, allowSelfLoops: true });
        for (let v = 0; v < 12; v++) reference.addNode(v);
        for (const [a, b] of ties) reference.addDirectedEdge(a, b);
        const lengths = singleSourceLength(reference, String(from));
        const { steps, nodes, edges } = pathsBetween(graphOf(12, ties), from, to, 'along');
        expect(steps).toBe(lengths[String(to)] ?? null);
        if (steps !== null) {
          expect(nodes).toContain(from);
          expect(nodes).toContain(to);
          expect(edges.length).toBeGreaterThanOrEqual(steps);
        }
      }),
    );
  });
});
