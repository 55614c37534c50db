/** A value with how many nodes have it, or have at least it. */
export type ValueCount = readonly [value: number, nodes: number];

/** How many nodes have each value, the least first; nodes without one are left out. @param nodes whose values count */
export function distribution(values: ArrayLike<number>, nodes: Iterable<number>): ValueCount[] {
  const counts = new Map<number, number>();
  for (const v of nodes)
    if (!Number.isNaN(values[v])) counts.set(values[v], (counts.get(values[v]) ?? 0) + 1);
  return [...counts].sort((a, b) => a[0] - b[0]);
}

/** The share of all nodes that have at least each value, 0 to 1 (the complementary cumulative distribution). */
export function cumulative(counts: readonly ValueCount[]): ValueCount[] {
  const all = counts.reduce((sum, [, nodes]) => sum + nodes, 0);
  let left = all;
  return counts.map(([value, nodes]) => {
    const share = left / all;
    left -= nodes;
    return [value, share];
  });
}

/** Counts in so many classes of the same width: each class's middle, and the nodes in it. Few values stay as they are. */
export function inClasses(counts: readonly ValueCount[], classes: number): ValueCount[] {
  if (counts.length <= classes) return [...counts];
  const [least, most] = [counts[0][0], counts[counts.length - 1][0]];
  const width = (most - least) / classes;
  const found = Array.from({ length: classes }, (_, c): [number, number] => [least + (c + 0.5) * width, 0]);
  for (const [value, nodes] of counts)
    found[Math.min(classes - 1, Math.floor((value - least) / width))][1] += nodes;
  return found;
}

/**
 * The nodes that stand out most in two measures: those farthest from where most are, by the sum of their squared standard scores of the
 * logarithm (common practice for heavy tails). Nodes without one of the values are left out.
 */
export function outliers(
  a: ArrayLike<number>,
  b: ArrayLike<number>,
  nodes: Iterable<number>,
  most: number,
): number[] {
  const both = [...nodes].filter((v) => !Number.isNaN(a[v]) && !Number.isNaN(b[v]));
  const score = (values: ArrayLike<number>): Float64Array => {
    const logs = Float64Array.from(both, (v) => Math.sign(values[v]) * Math.log1p(Math.abs(values[v])));
    const mean = logs.reduce((sum, x) => sum + x, 0) / logs.length;
    const spread = Math.sqrt(logs.reduce((sum, x) => sum + (x - mean) ** 2, 0) / logs.length);
    return logs.map((x) => (spread > 0 ? ((x - mean) / spread) ** 2 : 0));
  };
  const [x, y] = [score(a), score(b)];
  return [...both.keys()]
    .sort((i, j) => x[j] + y[j] - x[i] - y[i] || both[i] - both[j])
    .slice(0, most)
    .map((i) => both[i]);
}
