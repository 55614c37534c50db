import type { MeasureSettings } from '@pebble/contract';
import { communities as findCommunities } from '../communities/communities';
import { weakComponents } from '../graph/components';
import { neighbourRows, outRows, withoutSelfLoops } from '../graph/csr';
import type { Graph } from '../graph/graph';
import { betweenness, pivotsFor } from '../measure/betweenness';
import { degrees } from '../measure/degree';

export interface BasicMeasures {
  /** New columns of the node table; component and community count from 1, the largest. */
  readonly columns: Readonly<Record<string, Uint32Array | Float64Array>>;
  readonly components: number;
  readonly largestComponent: number;
  readonly isolates: number;
  readonly communities: number;
  readonly modularity: number;
  /** Start nodes used for betweenness; null when it is exact. */
  readonly pivots: number | null;
}

/**
 * The measures that every network gets at once: degrees, strengths, components, communities, betweenness. An undirected network, each
 * tie of which stands once, has no in- and out-columns.
 */
export function basicMeasures(
  graph: Graph,
  settings: MeasureSettings,
  progress?: (phase: string, share: number) => void,
  directed = true,
): BasicMeasures {
  progress?.('Degrees and components', 0);
  const degree = degrees(graph);
  const components = weakComponents(graph);
  const communities = findCommunities(graph, {
    ...settings,
    progress: (share) => progress?.('Communities', 0.1 + 0.4 * share),
  });
  const rows = withoutSelfLoops(directed ? outRows(graph) : neighbourRows(graph));
  const pivots = pivotsFor(rows);
  const between = betweenness(rows, {
    directed,
    normalised: true,
    pivots,
    seed: settings.seed,
    progress: (share) => progress?.('Betweenness', 0.5 + 0.5 * share),
  });
  const fromOne = (values: Uint32Array): Uint32Array => values.map((v) => v + 1);
  return {
    columns: {
      ...(directed ? { inDegree: degree.inDegree, outDegree: degree.outDegree } : {}),
      degree: degree.degree,
      ...(directed ? { inStrength: degree.inStrength, outStrength: degree.outStrength } : {}),
      strength: degree.strength,
      betweenness: between,
      component: fromOne(components.of),
      community: fromOne(communities.of),
    },
    components: components.count,
    largestComponent: components.size[0] ?? 0,
    isolates: degree.degree.reduce((sum, d) => sum + (d === 0 ? 1 : 0), 0),
    communities: communities.count,
    modularity: communities.modularity,
    pivots: pivots ?? null,
  };
}
