import type { Graph } from './graph';

/**
 * Compressed sparse rows: the neighbours of node v stand in neighbour[offset[v]] to neighbour[offset[v + 1] - 1],
 * ascending, each once, with the weight of the tie and the number of edges that were merged into it.
 */
export interface Csr {
  readonly nodeCount: number;
  readonly offset: Uint32Array;
  readonly neighbour: Uint32Array;
  readonly weight: Float64Array;
}

/** Rows of out-neighbours; parallel edges are merged, their weights added. */
export function outRows(graph: Graph): Csr {
  return mergeRows(graph.nodeCount, graph.source, graph.target, graph.weight);
}

/** Rows of in-neighbours; parallel edges are merged, their weights added. */
export function inRows(graph: Graph): Csr {
  return mergeRows(graph.nodeCount, graph.target, graph.source, graph.weight);
}

/**
 * Rows of neighbours without direction: a tie a-b stands in both rows, with the weights of all edges between a and b added.
 * A self-loop stands once in its row, with its weight as it is.
 */
export function neighbourRows(graph: Graph): Csr {
  const { source, target, weight, nodeCount } = graph;
  let size = 0;
  for (let e = 0; e < source.length; e++) size += source[e] === target[e] ? 1 : 2;
  const from = new Uint32Array(size);
  const to = new Uint32Array(size);
  const w = new Float64Array(size);
  let i = 0;
  for (let e = 0; e < source.length; e++) {
    from[i] = source[e];
    to[i] = target[e];
    w[i++] = weight[e];
    if (source[e] !== target[e]) {
      from[i] = target[e];
      to[i] = source[e];
      w[i++] = weight[e];
    }
  }
  return mergeRows(nodeCount, from, to, w);
}

/** The same rows without self-loops. */
export function withoutSelfLoops(rows: Csr): Csr {
  const { nodeCount, offset, neighbour, weight } = rows;
  const newOffset = new Uint32Array(nodeCount + 1);
  const newNeighbour = new Uint32Array(neighbour.length);
  const newWeight = new Float64Array(neighbour.length);
  let at = 0;
  for (let v = 0; v < nodeCount; v++) {
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      if (neighbour[i] === v) continue;
      newNeighbour[at] = neighbour[i];
      newWeight[at++] = weight[i];
    }
    newOffset[v + 1] = at;
  }
  return {
    nodeCount,
    offset: newOffset,
    neighbour: newNeighbour.slice(0, at),
    weight: newWeight.slice(0, at),
  };
}

/**
 * Sorts pairs by row and then by column in two counting passes, and adds up equal pairs.
 * Two passes of a stable counting sort are linear in the number of edges.
 */
function mergeRows(nodeCount: number, from: Uint32Array, to: Uint32Array, weight: Float64Array): Csr {
  const size = from.length;
  const byColumn = countingOrder(nodeCount, to, null);
  const order = countingOrder(nodeCount, from, byColumn);
  const offset = new Uint32Array(nodeCount + 1);
  const neighbour = new Uint32Array(size);
  const sum = new Float64Array(size);
  let at = 0;
  let row = 0;
  for (let i = 0; i < size; i++) {
    const e = order[i];
    const v = from[e];
    while (row < v) offset[++row] = at;
    if (at > offset[v] && neighbour[at - 1] === to[e]) {
      sum[at - 1] += weight[e];
    } else {
      neighbour[at] = to[e];
      sum[at++] = weight[e];
    }
  }
  while (row < nodeCount) offset[++row] = at;
  return { nodeCount, offset, neighbour: neighbour.slice(0, at), weight: sum.slice(0, at) };
}

/** The order of the edges by key; edges of equal key keep the order in which `before` names them. */
function countingOrder(keys: number, key: Uint32Array, before: Uint32Array | null): Uint32Array {
  const start = new Uint32Array(keys + 1);
  for (const k of key) start[k + 1]++;
  for (let k = 0; k < keys; k++) start[k + 1] += start[k];
  const order = new Uint32Array(key.length);
  for (let i = 0; i < key.length; i++) {
    const e = before ? before[i] : i;
    order[start[key[e]]++] = e;
  }
  return order;
}
