import theirEigenvector from 'graphology-metrics/centrality/eigenvector';
import theirHits from 'graphology-metrics/centrality/hits';
import theirPagerank from 'graphology-metrics/centrality/pagerank';
import { neighbourRows, outRows } from '../graph/csr';
import { makeGraph } from '../graph/graph';
import { randomTwin, withoutDirection, zachary } from '../testing/known';
import { eigenvector, hubsAndAuthorities, pagerank } from './rank';

const total = (values: Float64Array): number => values.reduce((a, b) => a + b, 0);

describe('PageRank', () => {
  it('gives 0.1009 and 0.0970 for nodes 34 and 1 of Zachary (1977), with damping 0.85', () => {
    const { values, converged } = pagerank(neighbourRows(zachary().graph));
    expect(values[33]).toBeCloseTo(0.1009, 4);
    expect(values[0]).toBeCloseTo(0.097, 4);
    expect(converged).toBe(true);
  });

  it('agrees with graphology-metrics on random directed graphs, by weight', () => {
    for (const seed of [1, 2, 3]) {
      const { graph, names, reference } = randomTwin(seed, 50, 200);
      const theirs = theirPagerank(reference, {
        getEdgeWeight: 'weight',
        tolerance: 1e-12,
        maxIterations: 2000,
      });
      const ours = pagerank(outRows(graph)).values;
      names.forEach((name, v) => expect(ours[v]).toBeCloseTo(theirs[name], 6));
      expect(total(ours)).toBeCloseTo(1, 10);
    }
  });

  it('passes what is stuck on to all, and gives an empty network nothing', () => {
    expect([...pagerank(outRows(makeGraph(2, [], []))).values]).toEqual([0.5, 0.5]);
    expect(pagerank(outRows(makeGraph(0, [], []))).converged).toBe(true);
  });
});

describe('eigenvector centrality', () => {
  it('agrees with graphology-metrics on the karate club, scaled so that the largest is 1', () => {
    const { graph, names, reference } = zachary();
    const theirs = theirEigenvector(withoutDirection(reference), {
      tolerance: 1e-12,
      maxIterations: 5000,
      getEdgeWeight: null,
    });
    const most = Math.max(...Object.values(theirs));
    const { values, converged } = eigenvector(neighbourRows(graph));
    expect(converged).toBe(true);
    names.forEach((name, v) => expect(values[v]).toBeCloseTo(theirs[name] / most, 6));
  });

  it('comes to rest in a two-sided network too: a star has the root of n - 1 between middle and rim', () => {
    const { values, converged } = eigenvector(neighbourRows(makeGraph(5, [0, 0, 0, 0], [1, 2, 3, 4])));
    expect(converged).toBe(true);
    expect(values[0] / values[1]).toBeCloseTo(2, 6);
  });
});

describe('hubs and authorities', () => {
  it('agree with graphology-metrics on a random directed graph', () => {
    const { graph, names, reference } = randomTwin(4, 30, 160);
    const theirs = theirHits(reference, { tolerance: 1e-12, maxIterations: 5000, getEdgeWeight: 'weight' });
    const { hubs, authorities, converged } = hubsAndAuthorities(outRows(graph));
    expect(converged).toBe(true);
    names.forEach((name, v) => {
      expect(hubs[v]).toBeCloseTo(theirs.hubs[name], 6);
      expect(authorities[v]).toBeCloseTo(theirs.authorities[name], 6);
    });
  });

  it('are 0 where there is no tie', () => {
    const { hubs, authorities } = hubsAndAuthorities(outRows(makeGraph(3, [0, 1], [2, 2])));
    expect([...hubs]).toEqual([0.5, 0.5, 0]);
    expect([...authorities]).toEqual([0, 0, 1]);
  });
});
