import { neighbourRows, outRows, withoutSelfLoops, type Csr } from '../../graph/csr';
import type { Graph } from '../../graph/graph';
import type { Betweenness } from './betweenness';
import { pivotsFor } from './betweenness';

/** One column of betweenness that is to be computed. */
export interface BridgePlan {
  readonly column: 'betweennessWeighted' | 'betweennessEither';
  /** Paths in steps, or by the length that weights give. */
  readonly kernel: 'steps' | 'length';
  readonly rows: Csr;
  readonly directed: boolean;
  /** Start nodes; without it all. */
  readonly pivots: number | undefined;
}

/** A column of betweenness with what came out. */
export interface FoundBridge extends BridgePlan {
  readonly found: Betweenness;
}

/** Going by length takes so many times as long as going in steps (measured). */
const LENGTH_COST = 8;

/** Lengths further apart than this cannot be added up: what is short would be lost in the rounding of what is long. */
const FURTHEST_APART = 1e8;
export const TOO_FAR_APART =
  'Betweenness by weight was left out: the largest weight is more than 100 million times the smallest, and sums of such lengths cannot be told from rounding. Leave out the weakest ties, or use ranks or logarithms as weights.';

/** Whether the lengths of ties can be added up and compared: 1 / weight for those with a weight above 0. */
function canBeAdded({ weight }: Csr): boolean {
  let [least, most] = [Infinity, 0];
  for (const w of weight)
    if (w > 0) {
      if (w < least) least = w;
      if (w > most) most = w;
    }
  return !(most > least * FURTHEST_APART) && (most === 0 || 1 / least < Infinity);
}

/** What is computed to tell who stands between others: by weight, where weights can be told apart, and without direction where there is one. */
export function bridgePlans(graph: Graph, directed: boolean): BridgePlan[] {
  const either = withoutSelfLoops(neighbourRows(graph));
  const along = directed ? withoutSelfLoops(outRows(graph)) : either;
  const plans: BridgePlan[] = [];
  if (canBeAdded(along))
    plans.push({
      column: 'betweennessWeighted',
      kernel: 'length',
      rows: along,
      directed,
      pivots: pivotsFor(along, 2e9 / LENGTH_COST),
    });
  if (directed)
    plans.push({
      column: 'betweennessEither',
      kernel: 'steps',
      rows: either,
      directed: false,
      pivots: pivotsFor(either),
    });
  return plans;
}

/** What is to be said of how a plan came out. */
export function bridgeNotes(
  { column, rows, pivots, kernel }: BridgePlan,
  { values, error }: Betweenness,
  seed: number,
): string[] {
  const notes: string[] = [];
  const name = column === 'betweennessWeighted' ? 'Betweenness by weight' : 'Betweenness either way';
  if (error) {
    let first = 0;
    for (let v = 1; v < values.length; v++) if (values[v] > values[first]) first = v;
    const share = values[first] > 0 ? Math.round((100 * error[first]) / values[first]) : 0;
    notes.push(
      `${name} was estimated from ${pivots} start nodes (Brandes & Pich 2007; seed ${seed}); the standard error of the highest value is ${share} % of it.`,
    );
  }
  const without = kernel === 'length' ? rows.weight.filter((weight) => !(weight > 0)).length : 0;
  if (without > 0)
    notes.push(
      `${without} ties with a weight of 0 or below have no length; ${name.toLowerCase()} left them out.`,
    );
  return notes;
}
