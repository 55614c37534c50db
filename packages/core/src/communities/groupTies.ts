import type { Graph } from '../graph/graph';

/** What leads from one group to another, row by row; without direction the table is the same both ways. Self-ties do not count. */
export interface GroupTies {
  readonly groups: number;
  readonly sizes: Float64Array;
  /** Ties, each once; without direction a tie between two groups stands in both cells. */
  readonly ties: Float64Array;
  readonly weight: Float64Array;
  /** Ties over those that could be, 0 to 1; NaN where none could be. */
  readonly density: Float64Array;
  /** Weight over what the strengths of both alone would give; NaN where that is 0. */
  readonly overExpected: Float64Array;
  /** (E - I) / (E + I) for the ties E that leave each group and I within it (Krackhardt & Stern 1988); -1 to 1, NaN without ties. */
  readonly outwardness: Float64Array;
}

/**
 * Ties between groups. Parallel ties count each.
 * @param group of each node, numbers from 0 on
 */
export function groupTies(
  { nodeCount, source, target, weight }: Graph,
  group: ArrayLike<number>,
  directed: boolean,
): GroupTies {
  let groups = 0;
  for (let v = 0; v < nodeCount; v++) groups = Math.max(groups, group[v] + 1);
  const sizes = new Float64Array(groups);
  for (let v = 0; v < nodeCount; v++) sizes[group[v]]++;
  const ties = new Float64Array(groups * groups);
  const weights = new Float64Array(groups * groups);
  const out = new Float64Array(groups);
  const into = directed ? new Float64Array(groups) : out;
  const within = new Float64Array(groups);
  const leaving = new Float64Array(groups);
  let total = 0;
  for (let e = 0; e < source.length; e++) {
    if (source[e] === target[e]) continue;
    const [a, b, w] = [group[source[e]], group[target[e]], weight[e]];
    ties[a * groups + b]++;
    weights[a * groups + b] += w;
    if (!directed && a !== b) {
      ties[b * groups + a]++;
      weights[b * groups + a] += w;
    }
    out[a] += w;
    into[b] += w;
    total += w;
    if (a === b) within[a]++;
    else {
      leaving[a]++;
      leaving[b]++;
    }
  }
  const possible = (a: number, b: number): number => {
    if (a !== b) return sizes[a] * sizes[b];
    return (sizes[a] * (sizes[a] - 1)) / (directed ? 1 : 2);
  };
  // Without direction each end of a tie may be either: a cell off the diagonal holds both ways.
  const expected = (a: number, b: number): number =>
    directed ? (out[a] * into[b]) / total : ((out[a] * out[b]) / (4 * total)) * (a === b ? 1 : 2);
  const each = (of: (a: number, b: number) => number): Float64Array =>
    Float64Array.from({ length: groups * groups }, (_, at) => of(Math.floor(at / groups), at % groups));
  const over = (part: number, whole: number): number => (whole > 0 ? part / whole : NaN);
  return {
    groups,
    sizes,
    ties,
    weight: weights,
    density: each((a, b) => over(ties[a * groups + b], possible(a, b))),
    overExpected: each((a, b) => over(weights[a * groups + b], expected(a, b))),
    outwardness: leaving.map((count, g) => over(count - within[g], count + within[g])),
  };
}
