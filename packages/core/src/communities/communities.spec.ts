import referenceLouvain from 'graphology-communities-louvain';
import { makeGraph } from '../graph/graph';
import { planted, randomTwin, zachary } from '../testing/known';
import Graphology from 'graphology';
import { weakComponents } from '../graph/components';
import { benchmarkGroups } from '../testing/benchmarkGroups';
import { adjustedRand, mutualInformation } from './agreement';
import { communities } from './communities';
import { modularity } from './modularity';

const settings = { resolution: 1, seed: 1, runs: 10 };

describe('louvain', () => {
  it('finds the four communities of highest modularity 0.4198 in Zachary (1977); Brandes et al. (2008), IEEE TKDE 20', () => {
    const found = communities(zachary().graph, settings);
    expect(found.modularity).toBeCloseTo(0.4198, 4);
    expect(found.count).toBe(4);
  });

  it('gives the same communities for the same seed', () => {
    const { graph } = randomTwin(4, 200, 900);
    expect([...communities(graph, settings).of]).toEqual([...communities(graph, settings).of]);
  });

  it('finds planted groups', () => {
    const { graph, group } = planted(2, 5, 30, 0.3, 0.02);
    expect(adjustedRand(communities(graph, settings).of, group)).toBeGreaterThan(0.95);
  });

  it('is no worse than graphology-communities-louvain on random graphs', () => {
    for (let seed = 1; seed <= 8; seed++) {
      const { graph, reference } = randomTwin(seed, 150, 600);
      const undirected = { ...settings };
      const theirs = referenceLouvain(reference, { getEdgeWeight: 'weight', rng: () => 0.5 });
      const group = Uint32Array.from(reference.nodes(), (name) => theirs[name]);
      expect(communities(graph, undirected).modularity).toBeGreaterThan(modularity(graph, group) - 0.01);
    }
  });

  it('gives more communities at a higher resolution', () => {
    const { graph } = zachary();
    expect(communities(graph, { ...settings, resolution: 3 }).count).toBeGreaterThan(
      communities(graph, { ...settings, resolution: 0.5 }).count,
    );
  });

  it('is not changed by ties of nodes to themselves: two triangles with a tie between them are two groups', () => {
    const ends = [
      [0, 1],
      [1, 2],
      [2, 0],
      [3, 4],
      [4, 5],
      [5, 3],
      [2, 3],
    ];
    const selves = [0, 1, 2, 3, 4, 5];
    const graph = makeGraph(
      6,
      [...ends.map(([a]) => a), ...selves],
      [...ends.map(([, b]) => b), ...selves],
      [...ends.map(() => 1), ...selves.map(() => 40)],
    );
    for (const method of ['louvain', 'leiden', 'labels'] as const)
      for (const directed of [false, true]) {
        const found = communities(graph, { ...settings, method, directed });
        expect(found.count).toBe(2);
        // 6 of 7 ties within, two groups with half of all ends each: 6 / 7 - 1 / 2; by hand.
        if (!directed) expect(found.modularity).toBeCloseTo(6 / 7 - 1 / 2, 12);
      }
    expect(modularity(graph, [0, 0, 0, 1, 1, 1])).toBeCloseTo(0.357, 3);
  });

  it('leaves every node alone where there are no ties', () => {
    const found = communities(makeGraph(3, [], []), settings);
    expect(found.count).toBe(3);
    expect(found.modularity).toBe(0);
  });
});

describe('the Leiden method', () => {
  const leiden = { ...settings, method: 'leiden' } as const;

  it('finds the highest modularity 0.4198 in Zachary (1977), as Louvain does', () => {
    const found = communities(zachary().graph, leiden);
    expect(found.modularity).toBeCloseTo(0.4198, 4);
    expect(found.count).toBe(4);
  });

  // The guarantee of Traag, Waltman & van Eck (2019).
  it.each([1, 2, 3, 4, 5, 6])('gives communities that hang together (random graph %i)', (seed) => {
    const { graph } = randomTwin(seed, 300, 700);
    for (const resolution of [0.5, 1, 3]) {
      const { of, count } = communities(graph, { ...leiden, seed, resolution, runs: 1 });
      for (let g = 0; g < count; g++) {
        const members = [...of.keys()].filter((v) => of[v] === g);
        const place = new Map(members.map((v, i) => [v, i]));
        const inside = [...graph.source.keys()].filter(
          (e) => of[graph.source[e]] === g && of[graph.target[e]] === g,
        );
        const part = makeGraph(
          members.length,
          inside.map((e) => place.get(graph.source[e])!),
          inside.map((e) => place.get(graph.target[e])!),
        );
        expect(weakComponents(part).count).toBe(1);
      }
    }
  });

  it('is no worse than graphology-communities-louvain on random graphs', () => {
    for (let seed = 1; seed <= 8; seed++) {
      const { graph, reference } = randomTwin(seed, 150, 600);
      const theirs = referenceLouvain(reference, { getEdgeWeight: 'weight', rng: () => 0.5 });
      const group = Uint32Array.from(reference.nodes(), (name) => theirs[name]);
      expect(communities(graph, leiden).modularity).toBeGreaterThan(modularity(graph, group) - 0.01);
    }
  });

  it('gives the same for the same seed, and all single nodes at a very high resolution', () => {
    const { graph } = randomTwin(4, 200, 900);
    expect([...communities(graph, leiden).of]).toEqual([...communities(graph, leiden).of]);
    expect(communities(graph, { ...leiden, resolution: 10_000 }).count).toBe(200);
    expect(communities(makeGraph(3, [], []), leiden).count).toBe(3);
  });
});

describe('planted communities (Lancichinetti, Fortunato & Radicchi 2008)', () => {
  it.each([0.1, 0.2, 0.3, 0.4, 0.5, 0.6])(
    'are found at mixing %f no worse than by graphology-communities-louvain',
    (mixing) => {
      const { graph, group } = benchmarkGroups(7, 600, mixing);
      const reference = new Graphology({ type: 'undirected' });
      for (let v = 0; v < graph.nodeCount; v++) reference.addNode(String(v));
      graph.source.forEach((s, e) => reference.addEdge(String(s), String(graph.target[e])));
      const theirs = referenceLouvain(reference, { rng: () => 0.5 });
      const agreement = mutualInformation(
        group,
        Uint32Array.from(reference.nodes(), (name) => theirs[name]),
      );
      for (const method of ['louvain', 'leiden'] as const) {
        const { of } = communities(graph, { ...settings, method });
        expect(mutualInformation(group, of)).toBeGreaterThan(agreement - 0.02);
      }
      if (mixing <= 0.4) expect(agreement).toBeGreaterThan(0.9);
    },
  );
});

describe('label propagation (Raghavan, Albert & Kumara 2007)', () => {
  const labels = { ...settings, method: 'labels' } as const;

  it('tells two cliques with one tie between them apart', () => {
    const source: number[] = [0];
    const target: number[] = [6];
    for (const first of [0, 6])
      for (let a = first; a < first + 6; a++)
        for (let b = first; b < a; b++) {
          source.push(a);
          target.push(b);
        }
    const found = communities(makeGraph(12, source, target), labels);
    expect([found.count, found.converged]).toEqual([2, true]);
    expect([...found.size]).toEqual([6, 6]);
  });

  it('finds planted groups', () => {
    const { graph, group } = planted(2, 5, 30, 0.4, 0.01);
    expect(adjustedRand(communities(graph, labels).of, group)).toBeGreaterThan(0.95);
  });
});

describe('modularity by direction (Leicht & Newman 2008)', () => {
  it('is the sum over all ordered pairs, and what is climbed', () => {
    const { graph } = randomTwin(9, 60, 260);
    const found = communities(graph, { ...settings, directed: true });
    const m = graph.weight.reduce((a, b) => a + b, 0);
    const out = new Float64Array(60);
    const into = new Float64Array(60);
    let sum = 0;
    graph.source.forEach((s, e) => {
      out[s] += graph.weight[e];
      into[graph.target[e]] += graph.weight[e];
      if (found.of[s] === found.of[graph.target[e]]) sum += graph.weight[e];
    });
    for (let a = 0; a < 60; a++)
      for (let b = 0; b < 60; b++) if (found.of[a] === found.of[b]) sum -= (out[a] * into[b]) / m;
    expect(found.modularity).toBeCloseTo(sum / m, 12);
    const without = communities(graph, settings);
    expect(found.modularity).toBeGreaterThanOrEqual(modularity(graph, without.of, 1, true) - 0.01);
  });
});
