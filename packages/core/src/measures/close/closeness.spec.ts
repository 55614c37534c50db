import theirCloseness from 'graphology-metrics/centrality/closeness';
import { neighbourRows } from '../../graph/csr';
import { makeGraph } from '../../graph/graph';
import { kite, withoutDirection, zachary } from '../../testing/known';
import { closeness } from './closeness';

describe('closeness', () => {
  it('is highest for F and G = 0.6429 in the kite of Krackhardt (1990)', () => {
    const { closeness: found, pivots } = closeness(neighbourRows(kite()));
    expect(found[5]).toBeCloseTo(0.6429, 4);
    expect(found[6]).toBeCloseTo(0.6429, 4);
    expect(Math.max(...found)).toBe(found[5]);
    expect(pivots).toBeNull();
  });

  it('follows the closed forms of Freeman (1979) for a star: 1 in the middle, 5 / 9 at the rim', () => {
    const found = closeness(neighbourRows(makeGraph(6, [0, 0, 0, 0, 0], [1, 2, 3, 4, 5])));
    expect(found.closeness[0]).toBe(1);
    expect(found.closeness[3]).toBeCloseTo(5 / 9, 12);
    // Boldi & Vigna (2014): (1 + 4 / 2) / 5
    expect(found.harmonic[3]).toBeCloseTo(3 / 5, 12);
  });

  it('agrees with graphology-metrics on the karate club', () => {
    const { graph, names, reference } = zachary();
    const theirs = theirCloseness(withoutDirection(reference), { wassermanFaust: true });
    const ours = closeness(neighbourRows(graph)).closeness;
    names.forEach((name, v) => expect(ours[v]).toBeCloseTo(theirs[name], 10));
  });

  it('takes a small component for what it is, and tells a node that reaches none from one far away', () => {
    // 0-1 are two of five, 2-3 as well, 4 is alone.
    const found = closeness(neighbourRows(makeGraph(5, [0, 2], [1, 3])));
    expect([...found.closeness]).toEqual([0.25, 0.25, 0.25, 0.25, NaN]);
    expect([...found.harmonic]).toEqual([0.25, 0.25, 0.25, 0.25, 0]);
    expect([...closeness(neighbourRows(makeGraph(0, [], []))).harmonic]).toEqual([]);
    expect([...closeness(neighbourRows(makeGraph(1, [], []))).harmonic]).toEqual([0]);
  });
});
