import referenceLouvain from 'graphology-communities-louvain';
import { makeGraph } from '../graph/graph';
import { planted, randomTwin, zachary } from '../testing/known';
import { adjustedRand } from './agreement';
import { louvain } from './louvain';
import { modularity } from './modularity';

const settings = { resolution: 1, seed: 1, runs: 10 };

describe('louvain', () => {
  it('finds the four communities of highest modularity 0.4198 in Zachary (1977); Brandes et al. (2008), IEEE TKDE 20', () => {
    const found = louvain(zachary().graph, settings);
    expect(found.modularity).toBeCloseTo(0.4198, 4);
    expect(found.count).toBe(4);
  });

  it('gives the same communities for the same seed', () => {
    const { graph } = randomTwin(4, 200, 900);
    expect([...louvain(graph, settings).of]).toEqual([...louvain(graph, settings).of]);
  });

  it('finds planted groups', () => {
    const { graph, group } = planted(2, 5, 30, 0.3, 0.02);
    expect(adjustedRand(louvain(graph, settings).of, group)).toBeGreaterThan(0.95);
  });

  it('is no worse than graphology-communities-louvain on random graphs', () => {
    for (let seed = 1; seed <= 8; seed++) {
      const { graph, reference } = randomTwin(seed, 150, 600);
      const undirected = { ...settings };
      const theirs = referenceLouvain(reference, { getEdgeWeight: 'weight', rng: () => 0.5 });
      const group = Uint32Array.from(reference.nodes(), (name) => theirs[name]);
      expect(louvain(graph, undirected).modularity).toBeGreaterThan(modularity(graph, group) - 0.01);
    }
  });

  it('gives more communities at a higher resolution', () => {
    const { graph } = zachary();
    expect(louvain(graph, { ...settings, resolution: 3 }).count).toBeGreaterThan(
      louvain(graph, { ...settings, resolution: 0.5 }).count,
    );
  });

  it('leaves every node alone where there are no ties', () => {
    const found = louvain(makeGraph(3, [], []), settings);
    expect(found.count).toBe(3);
    expect(found.modularity).toBe(0);
  });
});

describe('modularity', () => {
  it('gives 0.3582 for the historical split of Zachary (1977)', () => {
    const { graph, reference } = zachary();
    const clubs = reference.mapNodes((_, attributes) => String(attributes['club']));
    expect(
      modularity(
        graph,
        clubs.map((club) => (club === clubs[0] ? 0 : 1)),
      ),
    ).toBeCloseTo(0.3582, 4);
  });

  it('is the sum over all pairs that Newman & Girvan (2004) define', () => {
    const { graph, names } = zachary();
    const group = names.map((_, v) => v % 3);
    const n = names.length;
    const tied = Array.from({ length: n }, () => new Float64Array(n));
    graph.source.forEach((s, e) => {
      tied[s][graph.target[e]] += 1;
      tied[graph.target[e]][s] += 1;
    });
    const degree = tied.map((row) => row.reduce((a, b) => a + b, 0));
    const twice = degree.reduce((a, b) => a + b, 0);
    let sum = 0;
    for (let a = 0; a < n; a++) {
      for (let b = 0; b < n; b++)
        if (group[a] === group[b]) sum += tied[a][b] - (degree[a] * degree[b]) / twice;
    }
    expect(modularity(graph, group)).toBeCloseTo(sum / twice, 12);
  });
});

describe('adjustedRand', () => {
  it('is 1 for the same grouping under other names, and about 0 for independent ones', () => {
    expect(adjustedRand([0, 0, 1, 1], [5, 5, 2, 2])).toBe(1);
    // Hubert & Arabie (1985): the index of a grouping against one that crosses it is below 0.
    expect(adjustedRand([0, 0, 1, 1], [0, 1, 0, 1])).toBeCloseTo(-0.5, 10);
  });

  it('refuses groupings of different length', () => {
    expect(() => adjustedRand([1], [1, 2])).toThrow('1 and 2');
  });
});
