import fc from 'fast-check';
import { neighbourRows } from '../../graph/csr';
import { makeGraph } from '../../graph/graph';
import { rankRanges } from './doubt';
import { connectors, loudButLocal } from './positions';
import { rankCorrelation, ranks } from './ranks';

describe('ranks', () => {
  it('puts the highest first; equal ones share the best rank, and what has no value has none', () => {
    expect([...ranks([3, 7, NaN, 7, 1])]).toEqual([3, 1, NaN, 1, 4]);
  });
});

describe('rankCorrelation (Spearman)', () => {
  it('is 1 for the same order, -1 for the opposite, and none where nothing is ordered', () => {
    expect(rankCorrelation([1, 2, 3], [10, 20, 25])).toBe(1);
    expect(rankCorrelation([1, 2, 3], [3, 2, 1])).toBe(-1);
    expect(rankCorrelation([1, 1, 1], [3, 2, 1])).toBeNaN();
  });

  it('is 1 - 6 Σd² / (n (n² - 1)) without equal values, as handbooks have it', () => {
    const order = fc.shuffledSubarray([...Array(9).keys()], { minLength: 9, maxLength: 9 });
    fc.assert(
      fc.property(order, order, (a, b) => {
        const squares = a.reduce((sum, value, i) => sum + (value - b[i]) ** 2, 0);
        expect(rankCorrelation(a, b)).toBeCloseTo(1 - (6 * squares) / (9 * 80), 10);
      }),
    );
  });

  it('gives equal values their mean rank, worked by hand', () => {
    // Ranks 1.5, 1.5, 3 beside 1, 2, 3.
    expect(rankCorrelation([5, 5, 9], [1, 2, 3])).toBeCloseTo(1.5 / Math.sqrt(1.5 * 2), 12);
    expect(rankCorrelation([5, NaN, 5, 9], [1, 8, 2, 3])).toBeCloseTo(1.5 / Math.sqrt(3), 12);
  });
});

describe('rankRanges', () => {
  // Node 0 is addressed far more than 1 and 2, which are about equal.
  const graph = makeGraph(6, [3, 4, 5, 3, 4, 3, 5], [0, 0, 0, 1, 1, 2, 2], [90, 80, 85, 12, 11, 12, 12]);

  it('tells who is first from who is about equal', () => {
    const { from, to } = rankRanges(graph, true, 'inStrength', { runs: 200, seed: 4 });
    expect([from[0], to[0]]).toEqual([1, 1]);
    expect([from[1], to[1], from[2], to[2]]).toEqual([2, 3, 2, 3]);
  });

  it('is the same for the same seed, by any measure', () => {
    for (const measure of ['betweenness', 'pageRank', 'inDegree', 'degree'] as const) {
      const once = rankRanges(graph, true, measure, { runs: 20, seed: 4 });
      expect(once).toEqual(rankRanges(graph, true, measure, { runs: 20, seed: 4 }));
      expect([...once.from].every((rank, v) => rank >= 1 && rank <= once.to[v])).toBe(true);
    }
  });
});

describe('positions', () => {
  // Two triangles; node 6 of the first group is tied to two of either, node 0 to nobody else than its own.
  const rows = neighbourRows(makeGraph(7, [0, 1, 2, 3, 4, 5, 6, 6, 6], [1, 2, 0, 4, 5, 3, 1, 3, 4]));
  const group = [0, 0, 0, 1, 1, 1, 0];
  const all = [9, 5, 4, 3, 3, 3, 3];

  it('finds those whose ties mostly leave their group, if they are active enough', () => {
    expect(connectors(rows, group, all, 1)).toEqual([{ node: 6, partners: 3, inside: 1, groups: 2 }]);
    expect(connectors(rows, group, all, 4)).toEqual([]);
  });

  it('finds those who are loud within one group', () => {
    expect(loudButLocal(rows, group, all, 4).map(({ node }) => node)).toEqual([0, 1, 2]);
    expect(loudButLocal(rows, group, all, 3).map(({ node }) => node)).toEqual([0, 1, 2, 5]);
  });
});
