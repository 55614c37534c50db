import { LayoutSettings } from '@pebble/contract';
import { makeGraph, type Graph } from '../../graph/graph';
import { planted } from '../../testing/known';
import { arrange } from '../arrange';
import { legibility } from '../legibility';
import { startingValues } from './startingValues';

function readBy(graph: Graph, settings: LayoutSettings) {
  const radius = new Float32Array(graph.nodeCount).fill(4);
  const { x, y } = arrange(graph, radius, settings);
  const all = (n: number): Uint32Array => Uint32Array.from({ length: n }, (_, i) => i);
  return legibility(graph, all(graph.nodeCount), all(graph.source.length), { x, y, radius });
}

/** A square grid of so many nodes a side, whose best picture is a square grid. */
function lattice(side: number): Graph {
  const ends: [number[], number[]] = [[], []];
  for (let v = 0; v < side * side; v++) {
    const before = [...(v % side > 0 ? [v - 1] : []), ...(v >= side ? [v - side] : [])];
    for (const u of before) {
      ends[0].push(v);
      ends[1].push(u);
    }
  }
  return makeGraph(side * side, ...ends);
}

describe('starting values', () => {
  it('are the usual ones for a network of communities', () => {
    expect(startingValues(planted(2, 3, 18, 0.3, 0.02).graph)).toEqual(LayoutSettings.parse({}));
    expect(startingValues(makeGraph(5, [], []))).toEqual(LayoutSettings.parse({}));
  });

  it('unfold a grid better than the usual ones', () => {
    const graph = lattice(12);
    const [usual, own] = [readBy(graph, LayoutSettings.parse({})), readBy(graph, startingValues(graph))];
    expect(own.neighboursKept).toBeGreaterThan(usual.neighboursKept);
    expect(own.stress).toBeLessThan(usual.stress);
    expect(own.stress).toBeLessThan(0.05);
  });

  it('let weights count wholly where nearly all are tied with all, which shows its groups', () => {
    const n = 60;
    const ends: [number[], number[], number[]] = [[], [], []];
    for (let a = 0; a < n; a++)
      for (let b = 0; b < a; b++) {
        ends[0].push(a);
        ends[1].push(b);
        ends[2].push(a % 3 === b % 3 ? 0.6 : 0.1);
      }
    const graph = makeGraph(n, ends[0], ends[1], ends[2]);
    const settings = startingValues(graph);
    expect(settings.weights).toBe('whole');
    const apart = (weights: LayoutSettings['weights']): number => {
      const { x, y } = arrange(graph, new Float32Array(n).fill(4), { ...settings, weights });
      const mean = (within: boolean): number => {
        const pairs = ends[0].map((a, e) => [a, ends[1][e]]).filter(([a, b]) => (a % 3 === b % 3) === within);
        return pairs.reduce((sum, [a, b]) => sum + Math.hypot(x[a] - x[b], y[a] - y[b]), 0) / pairs.length;
      };
      return mean(false) / mean(true);
    };
    expect(apart('whole')).toBeGreaterThan(apart('root'));
  });

  it('ask for fewer rounds of a large network', () => {
    const n = 30_000;
    const ring = Array.from({ length: n }, (_, v) => v);
    const dense = [1, 2, 3].map((step) => ring.map((v) => (v + step) % n));
    const graph = makeGraph(n, [...ring, ...ring, ...ring], dense.flat());
    expect(startingValues(graph)).toMatchObject({ iterations: 300, apart: 'usual' });
  });
});
