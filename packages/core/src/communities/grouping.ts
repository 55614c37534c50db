import type { GroupingInfo, GroupingMethod, GroupingSettings } from '@pebble/contract';
import { weakComponents } from '../graph/components';
import { neighbourRows, outRows, withoutSelfLoops } from '../graph/csr';
import type { Graph } from '../graph/graph';
import { strongComponents } from '../graph/strong';
import { coreNumbers } from '../graph/cores';
import { communities, orderBySize, type CommunityMethod } from './communities';
import { modularity } from './modularity';
import { stability } from './stability';

/** A grouping of the nodes of a network. */
export interface Grouping {
  /** Group of each node, numbers from 0 on, the largest first; rings are core numbers. */
  readonly of: Uint32Array;
  /** What each group is called. */
  readonly names: readonly string[];
  readonly info: GroupingInfo;
  /** Share of runs in which each node stays with its group; null where no further runs were made. */
  readonly sure: Float64Array | null;
  readonly notes: readonly string[];
}

/** So many of the largest groups are compared with each other. */
const COMPARED = 60;
/** Groups that are one in fewer runs than this are not told. */
const SELDOM = 0.05;

const METHODS: Readonly<Record<GroupingMethod, string>> = {
  louvain: 'the Louvain method (Blondel et al. 2008)',
  leiden: 'the Leiden method (Traag, Waltman & van Eck 2019)',
  labels: 'label propagation (Raghavan, Albert & Kumara 2007)',
  weak: 'weak components',
  strong: 'strong components (Tarjan 1972)',
  core: 'rings by core number (Seidman 1983)',
};

export function isCommunityMethod(method: GroupingMethod): method is CommunityMethod {
  return method === 'louvain' || method === 'leiden' || method === 'labels';
}

/** Puts nodes into groups. Self-ties have no part in rings and components. */
export function groupNodes(
  graph: Graph,
  settings: GroupingSettings,
  progress?: (phase: string, share: number) => void,
): Grouping {
  const given = settings.weighted
    ? graph
    : { ...graph, weight: new Float64Array(graph.weight.length).fill(1) };
  const { method } = settings;
  if (!isCommunityMethod(method)) {
    const found = method === 'core' ? rings(given) : parts(given, method);
    const info = {
      settings,
      groups: found.names.length,
      single: found.size.filter((nodes) => nodes === 1).length,
      modularity: modularity(given, found.of, 1, settings.directed),
      stability: null,
    };
    return { of: found.of, names: found.names, info, sure: null, notes: [] };
  }
  const found = communities(given, {
    ...settings,
    method,
    progress: (share) => progress?.('Finding groups', 0.5 * share),
  });
  const names = Array.from(found.size, (_, g) => String(g + 1));
  const again =
    settings.stability > 0
      ? stability(given, found.of, {
          ...settings,
          method,
          seed: settings.seed + 1,
          runs: settings.stability,
          progress: (share) => progress?.('How sure they are', 0.5 + 0.5 * share),
        })
      : null;
  return {
    of: found.of,
    names,
    info: {
      settings,
      groups: found.count,
      single: found.size.filter((nodes) => nodes === 1).length,
      modularity: found.modularity,
      stability: again && { mean: meanOf(again.node), ...mergedPairs(again.merged, found.size, names) },
    },
    sure: again?.node ?? null,
    notes: found.converged
      ? []
      : ['Labels had not come to rest after 100 rounds: the groups are where they stood then.'],
  };
}

function meanOf(values: Float64Array): number {
  return values.length > 0 ? values.reduce((a, b) => a + b, 0) / values.length : NaN;
}

/** Pairs of the larger groups that are one in some runs. */
function mergedPairs(
  merged: Float64Array,
  size: Uint32Array,
  names: readonly string[],
): Omit<NonNullable<GroupingInfo['stability']>, 'mean'> {
  const compared = size.filter((nodes, g) => nodes > 1 && g < COMPARED).length;
  const pairs = [];
  for (let a = 0; a < compared; a++)
    for (let b = a + 1; b < compared; b++) {
      const share = merged[a * size.length + b];
      if (share >= SELDOM) pairs.push({ a: names[a], b: names[b], share });
    }
  return { merged: pairs.sort((x, y) => y.share - x.share), compared };
}

interface Parts extends Pick<Grouping, 'of' | 'names'> {
  readonly size: Uint32Array;
}

function parts(graph: Graph, method: 'weak' | 'strong'): Parts {
  const of =
    method === 'weak' ? weakComponents(graph).of : strongComponents(withoutSelfLoops(outRows(graph))).of;
  const ordered = orderBySize(of);
  return { of: ordered.of, size: ordered.size, names: Array.from(ordered.size, (_, g) => String(g + 1)) };
}

/** Nodes by their core number; the innermost ring first. */
function rings(graph: Graph): Parts {
  const core = coreNumbers(withoutSelfLoops(neighbourRows(graph)));
  const falling = [...new Set(core)].sort((a, b) => b - a);
  const place = new Map(falling.map((k, g) => [k, g]));
  const of = Uint32Array.from(core, (k) => place.get(k)!);
  const size = new Uint32Array(falling.length);
  for (const g of of) size[g]++;
  return { of, size, names: falling.map((k) => `core ${k}`) };
}

/** "the Leiden method (Traag, Waltman & van Eck 2019; resolution 1, best of 5 runs, seed 1)" */
export function methodPhrase({
  method,
  resolution,
  runs,
  seed,
  weighted,
  directed,
}: GroupingSettings): string {
  if (!isCommunityMethod(method)) return METHODS[method];
  const parts = [
    ...(method === 'labels' ? [] : [`resolution ${resolution}`]),
    ...(weighted ? [] : ['weights left out']),
    ...(directed ? ['modularity by direction (Leicht & Newman 2008)'] : []),
    `best of ${runs} runs`,
    `seed ${seed}`,
  ];
  return METHODS[method].replace(/\)$/, `; ${parts.join(', ')})`);
}
