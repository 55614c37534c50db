/** The groups of one slice. Nodes have the same number in all slices. */
export interface SliceGroups {
  readonly node: ArrayLike<number>;
  /** Group of each of the nodes; below 0 for none. */
  readonly group: Int32Array;
  readonly groups: number;
}

/** Nodes that a group of one slice shares with one of another. */
export interface Overlap {
  readonly a: number;
  readonly b: number;
  readonly nodes: number;
}

/** How many nodes any two groups of two slices share, where they share some; by the groups of the first, then of the second. */
export function overlaps(first: SliceGroups, second: SliceGroups, nodeCount: number): Overlap[] {
  const groupThere = groupsByNode(first, nodeCount);
  const counts = new Map<number, number>();
  for (let i = 0; i < second.node.length; i++) {
    const [a, b] = [groupThere[second.node[i]], second.group[i]];
    if (a < 0 || b < 0) continue;
    const pair = a * second.groups + b;
    counts.set(pair, (counts.get(pair) ?? 0) + 1);
  }
  return [...counts]
    .sort(([x], [y]) => x - y)
    .map(([pair, nodes]) => ({ a: Math.floor(pair / second.groups), b: pair % second.groups, nodes }));
}

/** The group of each node, by its number; -1 for one that is not there, or has none. */
export function groupsByNode({ node, group }: SliceGroups, nodeCount: number): Int32Array {
  const of = new Int32Array(nodeCount).fill(-1);
  for (let i = 0; i < node.length; i++) of[node[i]] = group[i];
  return of;
}
