import reference from 'graphology-metrics/centrality/betweenness';
import { neighbourRows, outRows, withoutSelfLoops } from '../../graph/csr';
import { makeGraph } from '../../graph/graph';
import { randomTwin } from '../../testing/known';
import { answerQuestions } from '../answer';
import { betweenness, betweennessBy } from './betweenness';
import { bridgeNotes, bridgePlans } from './bridgePlans';
import { pathsByLength } from './weightedPaths';

describe('betweenness by weight (Newman 2001; Brandes 2001)', () => {
  it('goes the longer way where its ties are stronger, worked by hand', () => {
    // 0-2 directly is 1 long; by way of 1 it is 1/4 + 1/4.
    const rows = neighbourRows(makeGraph(3, [0, 1, 0], [1, 2, 2], [4, 4, 1]));
    expect([...betweennessBy(pathsByLength, rows, { directed: false }).values]).toEqual([0, 1, 0]);
    expect([...betweenness(rows, { directed: false })]).toEqual([0, 0, 0]);
  });

  it('is betweenness in steps where all weights are the same', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const { graph } = randomTwin(seed, 30, 80);
      const even = outRows({ ...graph, weight: new Float64Array(graph.source.length).fill(3) });
      const found = betweennessBy(pathsByLength, even, { directed: true }).values;
      const steps = betweenness(even, { directed: true });
      found.forEach((value, v) => expect(value).toBeCloseTo(steps[v], 8));
    }
  });

  it('agrees with graphology-metrics on random graphs with a length of 1 / weight', () => {
    // Powers of two: the reference takes lengths for equal only where no bit differs.
    const power = (weight: number): number => 2 ** (weight - 1);
    for (let seed = 1; seed <= 40; seed++) {
      const { graph, names, reference: other } = randomTwin(seed, 25, 80);
      const theirs = reference(other, {
        normalized: false,
        getEdgeWeight: (_, attributes) => 1 / power(Number(attributes['weight'])),
      });
      const rows = outRows({ ...graph, weight: graph.weight.map(power) });
      const { values } = betweennessBy(pathsByLength, rows, { directed: true });
      names.forEach((name, v) => expect(values[v]).toBeCloseTo(theirs[name], 6));
    }
  });

  it('is equal for nodes that are alike, with weights up to 10^8 apart; beyond that it is refused with a reason', () => {
    // Two chains from 0 to 5 that are alike: 0-1-2-5 and 0-3-4-5.
    const chains = (strong: number) =>
      makeGraph(6, [0, 1, 2, 0, 3, 4], [1, 2, 5, 3, 4, 5], [strong, 1, strong, strong, 1, strong]);
    for (const strong of [1, 3, 1e4, 1e8]) {
      const [plan] = bridgePlans(chains(strong), true);
      const { values } = betweennessBy(pathsByLength, plan.rows, plan);
      expect([values[1], values[2]]).toEqual([values[3], values[4]]);
      expect(values[1]).toBeCloseTo(1.5, 10);
    }
    expect(bridgePlans(chains(1e10), true).map(({ column }) => column)).toEqual(['betweennessEither']);
    const settings = { damping: 0.85, seed: 1, groups: 'community' };
    const { columns, notes } = answerQuestions(chains(1e10), true, ['bridges'], settings, {
      groups: null,
      sorts: null,
    });
    expect(Object.keys(columns)).toEqual(['betweennessEither']);
    expect(notes.join()).toContain('more than 100 million times');
  });

  it('leaves ties out that have no length, which is said', () => {
    const graph = { ...makeGraph(3, [0, 1], [1, 2]), weight: Float64Array.of(1, 0) };
    const [plan] = bridgePlans(graph, true);
    const found = betweennessBy(pathsByLength, plan.rows, plan);
    expect([...found.values]).toEqual([0, 0, 0]);
    expect(bridgeNotes(plan, found, 1)).toEqual([
      '1 ties with a weight of 0 or below have no length; betweenness by weight left them out.',
    ]);
  });
});

describe('sampled betweenness', () => {
  it('has a standard error within which the exact value lies in most cases; what starts give is skewed, so that it is less than in 95 of 100', () => {
    const { graph } = randomTwin(9, 300, 1500);
    const rows = withoutSelfLoops(outRows(graph));
    const exact = betweenness(rows, { directed: true });
    let inside = 0;
    let all = 0;
    for (let seed = 1; seed <= 12; seed++) {
      const { values, error } = betweennessBy(
        (r, s, p) => pathsByLength({ ...r, weight: r.weight.map(() => 1) }, s, p),
        rows,
        { directed: true, pivots: 100, seed },
      );
      for (let v = 0; v < exact.length; v++)
        if (exact[v] > 200) {
          all++;
          if (Math.abs(values[v] - exact[v]) <= 2 * error![v]) inside++;
        }
    }
    expect(inside / all).toBeGreaterThan(0.8);
    expect(betweennessBy(pathsByLength, rows, { directed: true }).error).toBeNull();
  });
});
