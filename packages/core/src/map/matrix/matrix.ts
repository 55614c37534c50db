import { neighbourRows, withoutSelfLoops } from '../../graph/csr';
import { graphOf, numbersOf } from '../../network/tables';
import type { PreparedMap } from '../scene/prepare';

/** By what rows and columns are ordered. */
export type MatrixOrder = 'community' | 'degree' | 'blocks' | 'name';

/** A tie as a cell: from the node of its row to that of its column; without direction it stands in both. */
export interface MatrixCell {
  readonly row: number;
  readonly column: number;
  readonly weight: number;
  readonly edge: number;
}

export interface Matrix {
  /** Nodes in the order of rows and columns. */
  readonly nodes: readonly number[];
  readonly cells: readonly MatrixCell[];
  /** Shown nodes that have no row, since there would be too many. */
  readonly left: number;
  readonly heaviest: number;
}

/**
 * What a map shows as a matrix of the nodes with most ties.
 * @param most rows
 */
export function matrixOf(map: PreparedMap, order: MatrixOrder, most: number): Matrix {
  const { network, pale } = map;
  const source = numbersOf(network.edges, 'source');
  const target = numbersOf(network.edges, 'target');
  const weight = numbersOf(network.edges, 'weight');
  const degree = new Uint32Array(network.nodeCount);
  for (const e of map.edges) {
    degree[source[e]]++;
    if (source[e] !== target[e]) degree[target[e]]++;
  }
  const shown = [...map.nodes].filter((v) => pale?.[v] !== 1);
  const chosen = shown.sort((a, b) => degree[b] - degree[a] || a - b).slice(0, most);
  const nodes = ordered(map, chosen, order, degree);
  const place = new Map(nodes.map((v, i) => [v, i]));
  const cells: MatrixCell[] = [];
  let heaviest = 0;
  for (const e of map.edges) {
    const row = place.get(source[e]);
    const column = place.get(target[e]);
    if (row === undefined || column === undefined) continue;
    cells.push({ row, column, weight: weight[e], edge: e });
    if (!map.directed && row !== column) cells.push({ row: column, column: row, weight: weight[e], edge: e });
    heaviest = Math.max(heaviest, weight[e]);
  }
  return { nodes, cells, left: shown.length - chosen.length, heaviest };
}

function ordered(
  map: PreparedMap,
  nodes: readonly number[],
  order: MatrixOrder,
  degree: Uint32Array,
): readonly number[] {
  const columns = map.network.nodes;
  switch (order) {
    case 'degree':
      return nodes;
    case 'name':
      return [...nodes].sort((a, b) =>
        map.labels[a] < map.labels[b] ? -1 : map.labels[a] > map.labels[b] ? 1 : a - b,
      );
    case 'community': {
      if (!('community' in columns)) return nodes;
      const community = numbersOf(columns, 'community');
      return [...nodes].sort((a, b) => community[a] - community[b] || degree[b] - degree[a] || a - b);
    }
    case 'blocks':
      return byBlocks(map, nodes);
  }
}

/** Rounds of moving each node to the middle of its neighbours. */
const ROUNDS = 40;

/** Nodes with the same neighbours next to each other: begun along ties, then each goes to the middle of its neighbours, again and again. */
function byBlocks(map: PreparedMap, nodes: readonly number[]): number[] {
  const { offset, neighbour, weight } = withoutSelfLoops(
    neighbourRows(graphOf(map.network.nodeCount, map.network.edges)),
  );
  const place = new Float64Array(map.network.nodeCount).fill(-1);
  const inside = new Set(nodes);
  const begun: number[] = [];
  for (const start of nodes) {
    const open = [start];
    for (let v = open.shift(); v !== undefined; v = open.shift()) {
      if (!inside.delete(v)) continue;
      begun.push(v);
      for (let i = offset[v]; i < offset[v + 1]; i++) if (inside.has(neighbour[i])) open.push(neighbour[i]);
    }
  }
  let order = begun;
  for (let round = 0; round < ROUNDS; round++) {
    order.forEach((v, i) => (place[v] = i));
    const wanted = new Map(
      order.map((v) => {
        // A node pulls itself too, so that order settles.
        let [sum, all] = [place[v], 1];
        for (let i = offset[v]; i < offset[v + 1]; i++) {
          const at = place[neighbour[i]];
          if (at < 0) continue;
          sum += weight[i] * at;
          all += weight[i];
        }
        return [v, sum / all];
      }),
    );
    order = [...order].sort((a, b) => wanted.get(a)! - wanted.get(b)! || place[a] - place[b]);
  }
  return order;
}
