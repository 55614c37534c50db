import fc from 'fast-check';
import { makeGraph } from '../../graph/graph';
import { kite, zachary } from '../../testing/known';
import { degrees } from './degree';

describe('degrees', () => {
  it('gives the degrees of Zachary (1977): 16, 17 and 12 for nodes 1, 34 and 33', () => {
    const { degree } = degrees(zachary().graph);
    expect([degree[0], degree[33], degree[32]]).toEqual([16, 17, 12]);
  });

  it('is highest for D = 6 in the kite of Krackhardt (1990)', () => {
    const { degree } = degrees(kite());
    expect(Math.max(...degree)).toBe(6);
    expect(degree.indexOf(6)).toBe(3);
  });

  it('counts partners once and adds weights; self-loops are apart', () => {
    const found = degrees(makeGraph(3, [0, 0, 1, 2], [1, 1, 0, 2], [2, 3, 1, 7]));
    expect([...found.outDegree]).toEqual([1, 1, 0]);
    expect([...found.outStrength]).toEqual([5, 1, 0]);
    expect([...found.degree]).toEqual([1, 1, 0]);
    expect([...found.strength]).toEqual([6, 6, 0]);
    expect([...found.selfWeight]).toEqual([0, 0, 7]);
  });

  it('sums to the edges: both in-strengths and out-strengths add up to all weight without self-loops', () => {
    const edges = fc.array(fc.tuple(fc.nat(9), fc.nat(9), fc.integer({ min: 1, max: 5 })), { maxLength: 60 });
    fc.assert(
      fc.property(edges, (list) => {
        const found = degrees(
          makeGraph(
            10,
            list.map(([s]) => s),
            list.map(([, t]) => t),
            list.map(([, , w]) => w),
          ),
        );
        const total = list.filter(([s, t]) => s !== t).reduce((sum, [, , w]) => sum + w, 0);
        const sum = (values: Float64Array): number => values.reduce((a, b) => a + b, 0);
        expect(sum(found.inStrength)).toBe(total);
        expect(sum(found.outStrength)).toBe(total);
      }),
    );
  });
});
