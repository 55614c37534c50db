/** One tree of those in which something spread; nodes by their places in the order of time. */
export interface SpreadTree {
  readonly root: number;
  readonly size: number;
  /** Steps from the root to the farthest node. */
  readonly depth: number;
  /** Nodes at the depth that has most. */
  readonly breadth: number;
  /** Mean distance between any two nodes (Goel et al. 2016); 0 for a single one. */
  readonly virality: number;
}

export interface SpreadTrees {
  /** The largest first, of equal ones the earliest. */
  readonly trees: readonly SpreadTree[];
  /** Steps from the root of its tree, by node. */
  readonly depth: Int32Array;
  /** The root of its tree, by node. */
  readonly root: Int32Array;
}

/**
 * The trees of who had something from whom, with the structural virality of each (Goel, Anderson, Hofman & Watts 2016, Management Science
 * 62(1)): twice the sum over all ties of the nodes on either side, over the ordered pairs.
 * @param from by node: an earlier node, or -1 where it is not known from whom. Throws RangeError for a later one.
 */
export function spreadTrees(from: ArrayLike<number>): SpreadTrees {
  const count = from.length;
  const depth = new Int32Array(count);
  const root = new Int32Array(count);
  const below = new Float64Array(count).fill(1);
  for (let i = 0; i < count; i++) {
    const parent = from[i];
    if (parent >= i) throw new RangeError(`Node ${i} cannot have it from ${parent}, which is not before it.`);
    depth[i] = parent < 0 ? 0 : depth[parent] + 1;
    root[i] = parent < 0 ? i : root[parent];
  }
  for (let i = count - 1; i >= 0; i--) if (from[i] >= 0) below[from[i]] += below[i];
  const deepest = new Map<number, number>();
  const distances = new Map<number, number>();
  const levels = new Map<number, number[]>();
  for (let i = 0; i < count; i++) {
    const tree = root[i];
    deepest.set(tree, Math.max(deepest.get(tree) ?? 0, depth[i]));
    const across = from[i] < 0 ? 0 : below[i] * (below[tree] - below[i]);
    distances.set(tree, (distances.get(tree) ?? 0) + across);
    let level = levels.get(tree);
    if (!level) levels.set(tree, (level = []));
    level[depth[i]] = (level[depth[i]] ?? 0) + 1;
  }
  const trees = [...deepest].map(([tree, steps]): SpreadTree => {
    const size = below[tree];
    return {
      root: tree,
      size,
      depth: steps,
      breadth: levels.get(tree)!.reduce((most, own) => Math.max(most, own), 0),
      virality: size < 2 ? 0 : (2 * distances.get(tree)!) / (size * (size - 1)),
    };
  });
  return { trees: trees.sort((a, b) => b.size - a.size || a.root - b.root), depth, root };
}
