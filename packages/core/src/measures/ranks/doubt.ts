import type { DoubtMeasure } from '@pebble/contract';
import { neighbourRows, outRows, withoutSelfLoops } from '../../graph/csr';
import type { Graph } from '../../graph/graph';
import { resampled } from '../../graph/resampled';
import { Random } from '../../random';
import { betweenness, pivotsFor } from '../bridges/betweenness';
import { degrees } from '../basics/degree';
import { pagerank } from '../common/rank';
import { ranks } from './ranks';

export interface RankRange {
  /** Best and worst rank of each node between which it lies in 95 of 100 runs. */
  readonly from: Float64Array;
  readonly to: Float64Array;
}

/** Names of the columns of best and worst ranks by a measure of this title. */
export function rankColumns(title: string): { from: string; to: string } {
  return { from: `${title}, best rank`, to: `${title}, worst rank` };
}

/** Share of the runs that is left out at either end. */
const TAIL = 0.025;

/**
 * How far the ranks of nodes by a measure depend on which messages there happen to be: the measure is computed again on networks whose
 * messages were drawn anew (bootstrap percentiles, Efron & Tibshirani 1993).
 */
export function rankRanges(
  graph: Graph,
  directed: boolean,
  measure: DoubtMeasure,
  { runs, seed, progress }: { runs: number; seed: number; progress?: (share: number) => void },
): RankRange {
  const n = graph.nodeCount;
  const chance = new Random(seed);
  const drawn: Float64Array[] = [];
  for (let run = 0; run < runs; run++) {
    progress?.(run / runs);
    drawn.push(ranks(measureOf(resampled(graph, chance), directed, measure, seed)));
  }
  const from = new Float64Array(n);
  const to = new Float64Array(n);
  const own = new Float64Array(runs);
  const low = Math.floor(TAIL * (runs - 1));
  for (let v = 0; v < n; v++) {
    for (let run = 0; run < runs; run++) own[run] = drawn[run][v];
    own.sort();
    from[v] = own[low];
    to[v] = own[runs - 1 - low];
  }
  return { from, to };
}

/** The values of a measure as the column of its name has them. */
export function measureOf(
  graph: Graph,
  directed: boolean,
  measure: DoubtMeasure,
  seed: number,
): ArrayLike<number> {
  switch (measure) {
    case 'betweenness': {
      const rows = withoutSelfLoops(directed ? outRows(graph) : neighbourRows(graph));
      return betweenness(rows, { directed, normalised: true, pivots: pivotsFor(rows), seed });
    }
    case 'pageRank':
      return pagerank(withoutSelfLoops(directed ? outRows(graph) : neighbourRows(graph))).values;
    default:
      return degrees(graph)[measure];
  }
}
