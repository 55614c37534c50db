/**
 * A network as numbers: nodes are 0 to nodeCount - 1, edge e goes from source[e] to target[e].
 * Two edges may join the same pair; an edge from a node to itself is a self-loop.
 */
export interface Graph {
  readonly nodeCount: number;
  readonly source: Uint32Array;
  readonly target: Uint32Array;
  /** Strength of each edge, above 0. */
  readonly weight: Float64Array;
}

/** Checks the arrays of a graph once, where it is made. Throws a RangeError that names the first bad edge. */
export function makeGraph(
  nodeCount: number,
  source: ArrayLike<number>,
  target: ArrayLike<number>,
  weight?: ArrayLike<number>,
): Graph {
  if (source.length !== target.length || (weight && weight.length !== source.length)) {
    throw new RangeError(
      `A graph needs as many sources as targets and weights; it was given ${source.length}, ${target.length}` +
        (weight ? `, ${weight.length}.` : '.'),
    );
  }
  for (let e = 0; e < source.length; e++) {
    if (!(source[e] < nodeCount && target[e] < nodeCount)) {
      throw new RangeError(
        `Edge ${e} goes from ${source[e]} to ${target[e]}, but there are ${nodeCount} nodes.`,
      );
    }
    if (weight && !(weight[e] > 0 && weight[e] < Infinity)) {
      throw new RangeError(`Edge ${e} has the weight ${weight[e]}; a weight must be a number above 0.`);
    }
  }
  return {
    nodeCount,
    source: Uint32Array.from(source),
    target: Uint32Array.from(target),
    weight: weight ? Float64Array.from(weight) : new Float64Array(source.length).fill(1),
  };
}
