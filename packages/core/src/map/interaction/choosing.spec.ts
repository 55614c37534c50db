import { neighbourRows } from '../../graph/csr';
import { makeGraph } from '../../graph/graph';
import { commonNeighbours, nodesWithin, othersThan, toggled, withNeighbours } from './choosing';

// 0 and 1 are both tied to 2 and 3; 4 to 1 alone; 5 to none.
const rows = neighbourRows(makeGraph(6, [0, 0, 1, 3, 4], [2, 3, 2, 1, 1]));

describe('choosing nodes', () => {
  it('takes neighbours along, either way', () => {
    expect(withNeighbours(rows, [1])).toEqual([1, 2, 3, 4]);
    expect(withNeighbours(rows, [5])).toEqual([5]);
  });

  it('finds those that are tied to every one', () => {
    expect(commonNeighbours(rows, [0, 1])).toEqual([2, 3]);
    expect(commonNeighbours(rows, [0, 1, 2])).toEqual([]);
    expect(commonNeighbours(rows, [0, 5])).toEqual([]);
  });

  it('turns a choice round among what is shown', () => {
    expect(othersThan(Uint32Array.of(0, 1, 4), [1, 2])).toEqual([0, 4]);
  });

  it('puts one in, and takes it out', () => {
    expect(toggled([1, 5], 3)).toEqual([1, 3, 5]);
    expect(toggled([1, 3, 5], 3)).toEqual([1, 5]);
  });

  it('takes what lies within a line, also one that turns back on itself', () => {
    const places = { x: Float32Array.of(1, 5, 9), y: Float32Array.of(1, 5, 9), radius: new Float32Array(3) };
    const square = [[0, 0], [6, 0], [6, 6], [0, 6]] as const; // prettier-ignore
    expect(nodesWithin(square, places, [0, 1, 2])).toEqual([0, 1]);
    // A bay from the right takes the middle one out.
    const bay = [[0, 0], [10, 0], [10, 4], [4, 4], [4, 6], [10, 6], [10, 10], [0, 10]] as const; // prettier-ignore
    expect(nodesWithin(bay, places, [0, 1, 2])).toEqual([0, 2]);
    expect(nodesWithin([[0, 0]], places, [0, 1, 2])).toEqual([]);
  });
});
