import type { Graph } from '../graph/graph';
import { communities, type CommunityOptions } from './communities';

export interface AtResolution {
  readonly resolution: number;
  readonly groups: number;
  /** Groups of more than two nodes. */
  readonly larger: number;
  readonly modularity: number;
}

/** The resolutions that are tried: from 0.25 to 4 in equal steps of their logarithm. */
export const RESOLUTIONS: readonly number[] = Array.from(
  { length: 17 },
  (_, i) => +(2 ** (i / 4 - 2)).toFixed(3),
);

/** How many groups there are over a range of resolutions; the same seed for each. */
export function overResolutions(graph: Graph, options: Omit<CommunityOptions, 'resolution'>): AtResolution[] {
  return RESOLUTIONS.map((resolution, at) => {
    const found = communities(graph, {
      ...options,
      resolution,
      progress: (share) => options.progress?.((at + share) / RESOLUTIONS.length),
    });
    const larger = found.size.reduce((sum, size) => sum + (size > 2 ? 1 : 0), 0);
    return { resolution, groups: found.count, larger, modularity: found.modularity };
  });
}
