import { makeGraph } from '../graph/graph';
import { planted } from '../testing/known';
import { communities } from './communities';
import { overResolutions, RESOLUTIONS } from './resolutions';
import { stability } from './stability';

const options = { resolution: 1, seed: 5, runs: 30, resample: false };

/** Two cliques of six, and a node tied to two of either. */
function between() {
  const source: number[] = [12, 12, 12, 12];
  const target: number[] = [0, 1, 6, 7];
  for (const first of [0, 6])
    for (let a = first; a < first + 6; a++)
      for (let b = first; b < a; b++) {
        source.push(a);
        target.push(b);
      }
  return makeGraph(13, source, target);
}

describe('stability', () => {
  it('is sure of the cliques, and not of the node between them', () => {
    const graph = between();
    const group = [...Array.from({ length: 12 }, (_, v) => (v < 6 ? 0 : 1)), 0];
    const { node, merged } = stability(graph, group, options);
    expect(Math.min(...node.subarray(0, 12))).toBe(1);
    expect(node[12]).toBeGreaterThan(0.1);
    expect(node[12]).toBeLessThan(0.9);
    expect([...merged]).toEqual([1, 0, 0, 1]);
  });

  it('says that a group which is torn apart by force merges with its other half', () => {
    const { graph } = planted(3, 2, 40, 0.4, 0.01);
    // Half of the first planted group is called a group of its own.
    const group = Array.from({ length: 80 }, (_, v) => (v < 20 ? 0 : v < 40 ? 1 : 2));
    const { merged } = stability(graph, group, options);
    expect(merged[1]).toBeGreaterThan(0.9);
    expect(merged[2]).toBe(0);
  });

  it('is less sure when messages are drawn anew, and the same for the same seed', () => {
    const { graph } = planted(4, 4, 25, 0.2, 0.03);
    const { of } = communities(graph, { resolution: 1, seed: 1, runs: 5 });
    const mean = (values: Float64Array): number => values.reduce((a, b) => a + b, 0) / values.length;
    const drawn = stability(graph, of, { ...options, resample: true });
    expect(mean(drawn.node)).toBeLessThan(mean(stability(graph, of, options).node));
    expect(drawn).toEqual(stability(graph, of, { ...options, resample: true }));
  });
});

describe('overResolutions', () => {
  it('finds more groups the higher the resolution, and the planted ones over a wide range', () => {
    const { graph } = planted(2, 5, 30, 0.3, 0.02);
    const found = overResolutions(graph, { seed: 1, runs: 2 });
    expect(found.map(({ resolution }) => resolution)).toEqual([...RESOLUTIONS]);
    expect(found[0].groups).toBeLessThan(found.at(-1)!.groups);
    expect(found.filter(({ groups }) => groups === 5).length).toBeGreaterThan(4);
  });
});
