import { LayoutSettings } from '@pebble/contract';
import { neighbourRows, withoutSelfLoops } from '../graph/csr';
import type { Graph } from '../graph/graph';

/** Below this mean number of neighbours a network is thin: a tree has 2, a grid 4. */
const THIN = 4;
/** Above so many nodes a round takes long, and the network begins from smaller pictures of itself. */
const LARGE = 10_000;

/**
 * Values with which an arrangement by attraction begins well, by how large and how dense a network is. Thin ones (chains, trees, grids)
 * unfold better when attraction grows with the distance, and take more rounds; large ones begin nearly arranged and take fewer. How strongly
 * nodes push and how strongly the middle pulls makes little difference, since the picture is scaled afterwards; what was measured stands in
 * docs/benchmarks.md.
 */
export function startingValues(graph: Graph): LayoutSettings {
  const { offset, neighbour } = withoutSelfLoops(neighbourRows(graph));
  let tied = 0;
  for (let v = 0; v < graph.nodeCount; v++) if (offset[v + 1] > offset[v]) tied++;
  const isThin = tied > 0 && neighbour.length / tied <= THIN;
  return LayoutSettings.parse({
    ...(isThin ? { apart: 'little', iterations: 1000 } : {}),
    ...(graph.nodeCount > LARGE ? { iterations: 300 } : {}),
  });
}
