import { defaultMap } from '@pebble/contract';
import { planted } from '../../testing/known';
import { matrixOf } from './matrix';
import type { MapNetwork } from '../network/mapNetwork';
import { prepareMap } from '../scene/prepare';

const network = (directed: boolean): MapNetwork => ({
  nodeCount: 4,
  nodes: {
    handle: ['dee', 'ann', 'cy', 'ben'],
    name: ['', '', '', ''],
    messages: new Float64Array(4),
    community: Uint32Array.of(2, 1, 1, 2),
    betweenness: new Float64Array(4),
    degree: Uint32Array.of(1, 2, 2, 1),
    ...(directed ? { inDegree: Uint32Array.of(1, 1, 1, 0) } : {}),
  },
  edges: {
    source: Uint32Array.of(1, 2, 1, 3),
    target: Uint32Array.of(2, 0, 1, 1),
    weight: Float64Array.of(3, 1, 2, 1),
  },
});
const prepared = (directed = true) =>
  prepareMap(network(directed), { ...defaultMap, size: { ...defaultMap.size, column: 'degree' } });

describe('the matrix of a map', () => {
  it('has a cell from row to column for each tie, self-ties on the diagonal', () => {
    const { nodes, cells, heaviest, left } = matrixOf(prepared(), 'name', 10);
    expect(nodes).toEqual([1, 3, 2, 0]);
    expect(cells).toEqual([
      { row: 0, column: 2, weight: 3, edge: 0 },
      { row: 2, column: 3, weight: 1, edge: 1 },
      { row: 0, column: 0, weight: 2, edge: 2 },
      { row: 1, column: 0, weight: 1, edge: 3 },
    ]);
    expect([heaviest, left]).toEqual([3, 0]);
  });

  it('is the same across the diagonal where ties have no direction', () => {
    const { cells } = matrixOf(prepared(false), 'degree', 10);
    const keys = new Set(cells.map(({ row, column }) => `${row} ${column}`));
    expect(cells.every(({ row, column }) => keys.has(`${column} ${row}`))).toBe(true);
    expect(cells).toHaveLength(7);
  });

  it('keeps the nodes with most ties where there are too many, and says how many are left', () => {
    const { nodes, left, cells } = matrixOf(prepared(), 'community', 2);
    expect([nodes, left]).toEqual([[1, 2], 2]);
    expect(cells).toHaveLength(2);
  });

  it('puts those with the same neighbours next to each other: planted groups become blocks', () => {
    const { graph, group } = planted(3, 3, 15, 0.6, 0.02);
    const map = prepareMap(
      {
        nodeCount: 45,
        nodes: {
          handle: Array.from({ length: 45 }, (_, v) => `n${v}`),
          community: new Uint32Array(45).fill(1),
          betweenness: new Float64Array(45),
          inDegree: new Uint32Array(45),
          degree: new Uint32Array(45),
        },
        edges: { source: graph.source, target: graph.target, weight: graph.weight },
      },
      defaultMap,
    );
    const { nodes } = matrixOf(map, 'blocks', 100);
    const changes = nodes.filter((v, i) => i > 0 && group[v] !== group[nodes[i - 1]]).length;
    expect(changes).toBeLessThan(8);
  });
});
