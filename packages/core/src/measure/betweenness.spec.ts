import reference from 'graphology-metrics/centrality/betweenness';
import { neighbourRows, outRows } from '../graph/csr';
import { makeGraph } from '../graph/graph';
import { florence, kite, randomTwin, zachary } from '../testing/known';
import { betweenness } from './betweenness';

describe('betweenness', () => {
  it('gives the values of Zachary (1977): 231.0714, 160.5516 and 76.6905 for nodes 1, 34 and 33', () => {
    const { graph } = zachary();
    const found = betweenness(neighbourRows(graph), { directed: false });
    expect(found[0]).toBeCloseTo(231.0714, 4);
    expect(found[33]).toBeCloseTo(160.5516, 4);
    expect(found[32]).toBeCloseTo(76.6905, 4);
  });

  it('gives the normalised values of Padgett & Ansell (1993) for the Medici, Guadagni and Albizzi', () => {
    const { graph, names } = florence();
    const found = betweenness(neighbourRows(graph), { directed: false, normalised: true });
    const of = (name: string): number => found[names.findIndex((n) => n.startsWith(name))];
    expect(of('Medici')).toBeCloseTo(0.522, 4);
    expect(of('Guadagni')).toBeCloseTo(0.2546, 4);
    expect(of('Albizzi')).toBeCloseTo(0.2125, 4);
  });

  it('is highest for H = 14 in the kite of Krackhardt (1990)', () => {
    const found = [...betweenness(neighbourRows(kite()), { directed: false })];
    expect(Math.max(...found)).toBeCloseTo(14, 10);
    expect(found.indexOf(Math.max(...found))).toBe(7);
  });

  it('follows the closed forms of Freeman (1979) for a star and a line', () => {
    const star = makeGraph(6, [0, 0, 0, 0, 0], [1, 2, 3, 4, 5]);
    expect([...betweenness(neighbourRows(star), { directed: false })]).toEqual([10, 0, 0, 0, 0, 0]);
    const line = makeGraph(5, [0, 1, 2, 3], [1, 2, 3, 4]);
    expect([...betweenness(neighbourRows(line), { directed: false })]).toEqual([0, 3, 4, 3, 0]);
  });

  it('agrees with graphology-metrics on 20 random directed graphs', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const { graph, names, reference: other } = randomTwin(seed, 40, 120);
      const theirs = reference(other, { normalized: false, getEdgeWeight: null });
      const ours = betweenness(outRows(graph), { directed: true });
      names.forEach((name, v) => expect(ours[v]).toBeCloseTo(theirs[name], 8));
    }
  });

  it('comes near the exact values from sampled starts', () => {
    const { graph } = randomTwin(5, 300, 1800);
    const exact = betweenness(outRows(graph), { directed: true });
    const sampled = betweenness(outRows(graph), { directed: true, pivots: 150, seed: 2 });
    const sum = (values: Float64Array): number => values.reduce((a, b) => a + b, 0);
    expect(Math.abs(sum(sampled) / sum(exact) - 1)).toBeLessThan(0.1);
  });

  it('is 0 where there is nothing between', () => {
    expect([...betweenness(neighbourRows(makeGraph(2, [0], [1])), { directed: false })]).toEqual([0, 0]);
    expect([...betweenness(neighbourRows(makeGraph(0, [], [])), { directed: false })]).toEqual([]);
  });
});
