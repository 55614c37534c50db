import theirEigenvector from 'graphology-metrics/centrality/eigenvector';
import theirHits from 'graphology-metrics/centrality/hits';
import theirPagerank from 'graphology-metrics/centrality/pagerank';
import { neighbourRows, outRows } from '../../graph/csr';
import { makeGraph } from '../../graph/graph';
import { Random } from '../../random';
import { randomTwin, withoutDirection, zachary } from '../../testing/known';
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

describe('eigenvector centrality of ordinary networks', () => {
  const star = (weight: number) =>
    neighbourRows(makeGraph(5, [0, 0, 0, 0], [1, 2, 3, 4], new Array<number>(4).fill(weight)));

  it.each([1e-300, 1e-11, 1, 1000, 1e300])('is 1 and 0.5 in a star of four ties of weight %f', (weight) => {
    const { values, converged } = eigenvector(star(weight));
    expect(converged).toBe(true);
    expect(values[0]).toBe(1);
    for (const v of [1, 2, 3, 4]) expect(values[v]).toBeCloseTo(0.5, 10);
  });

  it('comes to rest in two-mode and co-occurrence networks, and fulfils its definition', () => {
    const chance = new Random(11);
    for (let round = 0; round < 40; round++) {
      const [people, things] = [30 + chance.below(200), 5 + chance.below(60)];
      const [source, target, weight]: number[][] = [[], [], []];
      for (let p = 0; p < people; p++)
        for (let k = 1 + chance.below(6); k > 0; k--) {
          source.push(p);
          target.push(people + Math.floor(things * chance.real() ** 3));
          weight.push(1 + chance.below(round % 2 === 0 ? 3 : 5000));
        }
      const rows = neighbourRows(makeGraph(people + things, source, target, weight));
      const { values, converged } = eigenvector(rows);
      expect(converged).toBe(true);
      // A x = lambda x, by another way than that by which it was found.
      const product = Array.from(values, (_, v) => {
        let sum = 0;
        for (let i = rows.offset[v]; i < rows.offset[v + 1]; i++)
          sum += rows.weight[i] * values[rows.neighbour[i]];
        return sum;
      });
      const lambda = Math.max(...product);
      values.forEach((value, v) => expect(product[v] / lambda).toBeCloseTo(value, 7));
    }
  });

  it('comes to rest where two circles are nearly alike', () => {
    const [source, target]: number[][] = [[], []];
    for (const [first, size] of [
      [0, 40],
      [40, 40],
    ])
      for (let a = 0; a < size; a++)
        for (let b = 0; b < a; b++) {
          source.push(first + a);
          target.push(first + b);
        }
    const graph = makeGraph(80, [...source, 0], [...target, 40]);
    const { values, converged } = eigenvector(neighbourRows(graph));
    expect(converged).toBe(true);
    expect(values[0]).toBeCloseTo(values[40], 8);
    expect(values[1]).toBeCloseTo(values[79], 8);
  });

  it('is undefined without ties, as hubs and authorities are', () => {
    const rows = neighbourRows(makeGraph(3, [], []));
    expect([...eigenvector(rows).values]).toEqual([NaN, NaN, NaN]);
    const { hubs, authorities } = hubsAndAuthorities(rows);
    expect([...hubs, ...authorities]).toEqual(new Array(6).fill(NaN));
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
