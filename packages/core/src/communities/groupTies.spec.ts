import { makeGraph } from '../graph/graph';
import { modularity } from './modularity';
import { randomTwin } from '../testing/known';
import { groupTies } from './groupTies';

describe('groupTies', () => {
  // Group 0 has the nodes 0 and 1, group 1 the nodes 2, 3 and 4.
  const graph = makeGraph(5, [0, 1, 0, 3, 4, 2], [1, 0, 2, 1, 3, 2], [2, 1, 4, 1, 3, 9]);
  const group = [0, 0, 1, 1, 1];

  it('counts ties, weights and density with direction, worked by hand; self-ties do not count', () => {
    const found = groupTies(graph, group, true);
    expect([...found.ties]).toEqual([2, 1, 1, 1]);
    expect([...found.weight]).toEqual([3, 4, 1, 3]);
    expect([...found.density].map((d) => +d.toFixed(4))).toEqual([1, 0.1667, 0.1667, 0.1667]);
    // Group 0 sends 7 of 11 and gets 4 of 11: 3 over 28 / 11.
    expect(found.overExpected[0]).toBeCloseTo(3 / (28 / 11), 12);
    // Krackhardt & Stern (1988): two ties leave, two stay in group 0; two leave, one stays in group 1.
    expect([...found.outwardness]).toEqual([0, 1 / 3]);
  });

  it('is the same both ways without direction', () => {
    const found = groupTies(graph, group, false);
    expect([...found.ties]).toEqual([2, 2, 2, 1]);
    expect(found.density[0]).toBe(2);
    expect(found.overExpected[1]).toBe(found.overExpected[2]);
  });

  it('has as much above what is expected within groups as modularity says', () => {
    const { graph: other } = randomTwin(3, 40, 200);
    const of = Uint32Array.from({ length: 40 }, (_, v) => v % 4);
    for (const directed of [true, false]) {
      const { weight, overExpected, groups } = groupTies(other, of, directed);
      const total = other.weight.reduce((a, b) => a + b, 0);
      let above = 0;
      for (let g = 0; g < groups; g++) {
        const at = g * groups + g;
        above += weight[at] - weight[at] / overExpected[at];
      }
      expect(above / total).toBeCloseTo(modularity(other, of, 1, directed), 10);
    }
  });

  it('has no numbers where nothing could be', () => {
    const found = groupTies(makeGraph(2, [], []), [0, 1], true);
    expect([found.density[0], found.overExpected[1], found.outwardness[0]]).toEqual([NaN, NaN, NaN]);
  });
});
