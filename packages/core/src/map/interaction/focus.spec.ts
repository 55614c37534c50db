import { neighbourRows } from '../../graph/csr';
import { graphOf } from '../../network/tables';
import { focusOnCommunity, focusOnNodes, focusOnTies } from './focus';

const data = {
  nodeCount: 4,
  nodes: { handle: ['a', 'b', 'c', 'd'], community: Uint32Array.of(0, 0, 1, 1) },
  edges: {
    source: Uint32Array.of(0, 1, 2),
    target: Uint32Array.of(1, 2, 0),
    weight: Float64Array.of(1, 1, 1),
  },
};
const rows = neighbourRows(graphOf(4, data.edges));
const told = ({ nodes, around, edges }: ReturnType<typeof focusOnTies>) =>
  [nodes, around, edges].map((set) => [...set].sort());

describe('what is picked out', () => {
  it('is a node with its neighbours and all its ties', () => {
    expect(told(focusOnNodes(data, rows, [1]))).toEqual([[1], [0, 2], [0, 1]]);
  });

  it('is several nodes with the ties among them', () => {
    expect(told(focusOnNodes(data, rows, [0, 1, 3]))).toEqual([[0, 1, 3], [], [0]]);
  });

  it('is a tie in its direction', () => {
    expect(told(focusOnTies(data, [{ source: 1, target: 2 }]))).toEqual([[1, 2], [1, 2], [1]]);
    expect(focusOnTies(data, [{ source: 2, target: 1 }]).edges.size).toBe(0);
  });

  it('is the nodes of a community', () => {
    expect(told(focusOnCommunity(data, 1))).toEqual([[], [2, 3], []]);
  });
});
