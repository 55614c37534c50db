import fc from 'fast-check';
import { neighbourRows, outRows, withoutSelfLoops } from '../../graph/csr';
import { makeGraph, type Graph } from '../../graph/graph';
import { strongComponents } from '../../graph/strong';
import { Random } from '../../random';
import { kite, zachary } from '../../testing/known';
import { rewired } from './rewired';
import { comparedFigures, wholeFigures } from './whole';

const star = makeGraph(6, [0, 0, 0, 0, 0], [1, 2, 3, 4, 5]);
const ring = makeGraph(6, [0, 1, 2, 3, 4, 5], [1, 2, 3, 4, 5, 0]);

describe('figures of a whole network', () => {
  it('are those of the karate club (Zachary 1977): 34 nodes, 78 ties, density 0.1390, diameter 5, mean distance 2.4082, transitivity 0.2557, assortativity -0.4756 (from memory)', () => {
    const found = wholeFigures(zachary().graph, false);
    expect(found).toMatchObject({
      nodes: 34,
      ties: 78,
      selfTies: 0,
      weakComponents: 1,
      isolates: 0,
      diameter: 5,
    });
    expect(found.density).toBeCloseTo(0.139, 4);
    expect(found.meanDistance).toBeCloseTo(2.4082, 4);
    expect(found.transitivity).toBeCloseTo(0.2557, 4);
    expect(found.assortativity).toBeCloseTo(-0.4756, 4);
    expect(found.reciprocity).toBeNaN();
  });

  it('follow closed forms for a star and a ring (Freeman 1979)', () => {
    expect(wholeFigures(star, false)).toMatchObject({
      centralisation: 1,
      diameter: 2,
      transitivity: 0,
      top1: 0.5,
    });
    expect(wholeFigures(star, false).meanDistance).toBeCloseTo(5 / 3, 12);
    expect(wholeFigures(ring, false)).toMatchObject({ centralisation: 0, diameter: 3, meanDegree: 2 });
    expect(wholeFigures(ring, false).assortativity).toBeNaN();
  });

  it('go by direction: mean degree is ties over nodes, a ring is one strong component, a star is six', () => {
    const found = wholeFigures(ring, true);
    expect(found).toMatchObject({ meanDegree: 1, reciprocity: 0, strongComponents: 1, largestStrong: 6 });
    expect(found.density).toBeCloseTo(6 / 30, 12);
    expect(wholeFigures(star, true)).toMatchObject({ strongComponents: 6, largestStrong: 1 });
    const pair = makeGraph(4, [0, 1, 2, 3], [1, 0, 0, 3]);
    expect(wholeFigures(pair, true)).toMatchObject({
      ties: 3,
      selfTies: 1,
      reciprocity: 2 / 3,
      weakComponents: 2,
      isolates: 1,
    });
  });

  it('are told also of networks without nodes, with one, and without ties', () => {
    expect(wholeFigures(makeGraph(0, [], []), true)).toMatchObject({
      nodes: 0,
      density: NaN,
      meanDegree: NaN,
    });
    expect(wholeFigures(makeGraph(1, [], []), false)).toMatchObject({ diameter: 0, meanDistance: NaN });
    expect(wholeFigures(makeGraph(3, [], []), true)).toMatchObject({
      density: 0,
      reciprocity: NaN,
      top1: NaN,
    });
  });
});

describe('strong components', () => {
  it('are those that reach each other', () => {
    const pairs = fc.array(fc.tuple(fc.nat(7), fc.nat(7)), { maxLength: 20 });
    fc.assert(
      fc.property(pairs, (list) => {
        const graph = makeGraph(
          8,
          list.map(([a]) => a),
          list.map(([, b]) => b),
        );
        const reach = Array.from({ length: 8 }, (_, v) => {
          const seen = new Set([v]);
          for (const u of seen) for (const [a, b] of list) if (a === u) seen.add(b);
          return seen;
        });
        const { of } = strongComponents(outRows(graph));
        for (let a = 0; a < 8; a++)
          for (let b = 0; b < 8; b++) expect(of[a] === of[b]).toBe(reach[a].has(b) && reach[b].has(a));
      }),
    );
  });
});

describe('networks by chance', () => {
  const degrees = (graph: Graph, directed: boolean): number[] => {
    const rows = withoutSelfLoops(directed ? outRows(graph) : neighbourRows(graph));
    return Array.from({ length: graph.nodeCount }, (_, v) => rows.offset[v + 1] - rows.offset[v]);
  };

  it('keep every degree, tie no pair twice and no node to itself', () => {
    for (const directed of [true, false]) {
      const other = rewired(zachary().graph, directed, new Random(3));
      expect(degrees(other, directed)).toEqual(degrees(zachary().graph, directed));
      expect(wholeFigures(other, directed)).toMatchObject({ ties: 78, selfTies: 0 });
      expect([...other.target]).not.toEqual([...zachary().graph.target]);
    }
  });

  it('are the same for the same seed, and have fewer triangles than friends do', () => {
    const compare = () => comparedFigures(zachary().graph, false, { networks: 30, seed: 4 });
    const { transitivity } = compare();
    expect(compare().transitivity).toEqual(transitivity);
    expect(transitivity.mean).toBeGreaterThan(0);
    expect(transitivity.deviation).toBeGreaterThan(0);
    // The kite is made of triangles.
    const found = comparedFigures(kite(), false, { networks: 30, seed: 1 }).transitivity;
    expect(wholeFigures(kite(), false).transitivity).toBeGreaterThan(found.mean);
  });

  it('cannot change what has one form only', () => {
    expect(comparedFigures(star, false, { networks: 5, seed: 1 }).transitivity).toEqual({
      mean: 0,
      deviation: 0,
    });
  });
});
