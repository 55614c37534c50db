import type { MeasureSettings } from '@pebble/contract';
import { communities as findCommunities } from '../../communities/communities';
import { weakComponents } from '../../graph/components';
import { neighbourRows, outRows, withoutSelfLoops, type Csr } from '../../graph/csr';
import type { Graph } from '../../graph/graph';
import { betweenness, pivotsFor } from '../bridges/betweenness';
import { degrees } from './degree';
import { counted } from '../../words/sentence';

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

/** How many communities there are; an isolate, which is one by itself, is no community to people. */
export function communitiesPhrase({
  communities,
  isolates,
}: Pick<BasicMeasures, 'communities' | 'isolates'>): string {
  const beside = isolates > 0 ? ` beside ${counted(isolates, 'isolate')}` : '';
  return `${counted(communities - isolates, 'community', 'communities')}${beside}`;
}

/** Along which rows betweenness goes, and from how many start nodes; all where it is left out. */
export function betweennessPlan(graph: Graph, directed: boolean): { rows: Csr; pivots: number | undefined } {
  const rows = withoutSelfLoops(directed ? outRows(graph) : neighbourRows(graph));
  return { rows, pivots: pivotsFor(rows) };
}

function plainBetweenness(
  graph: Graph,
  { seed }: MeasureSettings,
  progress: ((phase: string, share: number) => void) | undefined,
  directed: boolean,
): Float64Array {
  const { rows, pivots } = betweennessPlan(graph, directed);
  return betweenness(rows, {
    directed,
    normalised: true,
    pivots,
    seed,
    progress: (share) => progress?.('Betweenness', 0.5 * share),
  });
}

/**
 * The measures that every network gets at once: degrees, strengths, components, communities, betweenness. An undirected network, each
 * tie of which stands once, has no in- and out-columns.
 * @param between betweenness where it was computed already, in several threads; null where it is computed later
 */
export function basicMeasures(
  graph: Graph,
  settings: MeasureSettings,
  progress?: (phase: string, share: number) => void,
  directed = true,
  between: Float64Array | null = plainBetweenness(graph, settings, progress, directed),
): BasicMeasures {
  progress?.('Degrees and components', 0.5);
  const degree = degrees(graph);
  const components = weakComponents(graph);
  const communities = findCommunities(graph, {
    ...settings,
    progress: (share) => progress?.('Communities', 0.6 + 0.4 * share),
  });
  const { pivots } = betweennessPlan(graph, directed);
  const fromOne = (values: Uint32Array): Uint32Array => values.map((v) => v + 1);
  return {
    columns: {
      ...(directed ? { inDegree: degree.inDegree, outDegree: degree.outDegree } : {}),
      degree: degree.degree,
      ...(directed ? { inStrength: degree.inStrength, outStrength: degree.outStrength } : {}),
      strength: degree.strength,
      ...(between ? { betweenness: between } : {}),
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
