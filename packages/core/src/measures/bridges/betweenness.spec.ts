import Graphology from 'graphology';
import reference from 'graphology-metrics/centrality/betweenness';
import { neighbourRows, outRows } from '../../graph/csr';
import { makeGraph } from '../../graph/graph';
import { florence, kite, randomTwin, zachary } from '../../testing/known';
import { betweenness } from './betweenness';

/** Betweenness by going through every path: of each pair the shortest ones, and the share that each other node lies on. */
function countedPaths(n: number, ties: readonly (readonly number[])[]): number[] {
  const tied = (a: number, b: number): boolean =>
    ties.some(([x, y]) => (x === a && y === b) || (x === b && y === a));
  const sum = new Array<number>(n).fill(0);
  for (let a = 0; a < n; a++)
    for (let b = a + 1; b < n; b++) {
      const paths: number[][] = [];
      const go = (path: number[]): void => {
        const last = path[path.length - 1];
        if (last === b) return void paths.push(path);
        for (let v = 0; v < n; v++) if (!path.includes(v) && tied(last, v)) go([...path, v]);
      };
      go([a]);
      const least = Math.min(...paths.map(({ length }) => length));
      const shortest = paths.filter(({ length }) => length === least);
      for (const path of shortest) for (const v of path.slice(1, -1)) sum[v] += 1 / shortest.length;
    }
  return sum.map((value) => +value.toFixed(9));
}

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

  it('agrees with graphology-metrics on 200 random graphs: sparse and dense, in pieces, with and without direction', () => {
    for (let seed = 1; seed <= 200; seed++) {
      const nodes = 5 + (seed % 30);
      const {
        graph,
        names,
        reference: other,
      } = randomTwin(seed, nodes, Math.round(nodes * (0.4 + (seed % 7))));
      const theirs = reference(other, { normalized: false, getEdgeWeight: null });
      const ours = betweenness(outRows(graph), { directed: true });
      names.forEach((name, v) => expect(ours[v]).toBeCloseTo(theirs[name], 7));
      const undirected = new Graphology({ type: 'undirected' });
      names.forEach((name) => undirected.addNode(name));
      other.forEachEdge((_, __, a, b) => undirected.mergeEdge(a, b));
      const without = reference(undirected, { normalized: false, getEdgeWeight: null });
      const either = betweenness(neighbourRows(graph), { directed: false });
      names.forEach((name, v) => expect(either[v]).toBeCloseTo(without[name], 7));
    }
  });

  it('is what counting all shortest paths gives, on every graph of up to five nodes', () => {
    for (let n = 1; n <= 5; n++) {
      const pairs = Array.from({ length: n * n }, (_, i) => [Math.floor(i / n), i % n]).filter(
        ([a, b]) => a < b,
      );
      for (let set = 0; set < 1 << pairs.length; set++) {
        const ties = pairs.filter((_, i) => (set >> i) & 1);
        const graph = makeGraph(
          n,
          ties.map(([a]) => a),
          ties.map(([, b]) => b),
        );
        const found = betweenness(neighbourRows(graph), { directed: false });
        expect([...found].map((value) => +value.toFixed(9))).toEqual(countedPaths(n, ties));
      }
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
