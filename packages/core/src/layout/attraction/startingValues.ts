import { LayoutSettings } from '@pebble/contract';
import { neighbourRows, withoutSelfLoops } from '../../graph/csr';
import type { Graph } from '../../graph/graph';

/** Up to this mean number of neighbours a network is thin: a grid has nearly 4. */
const THIN = 4;
/** Below this one it is a chain or a tree, or nearly so: these have 2. */
const TREE = 3;
/** Where nodes are tied with more than this share of all, shares alone tell who belongs together; a few nodes can be read anyway. */
const ALL_TIED = 0.25;
const FEW = 20;
/** Above so many nodes a round takes long, and the network begins from smaller pictures of itself. */
const LARGE = 10_000;

/**
 * Values with which an arrangement by attraction begins well, by how large and how dense a network is. Thin ones (chains, trees, grids)
 * unfold better when attraction grows with the distance, and take more rounds; chains and trees when the middle hardly pulls. Where nearly
 * all are tied with all by shares, which are large between a few, weights count wholly. Large ones begin nearly arranged and take fewer
 * rounds. How strongly nodes push makes little difference, since the picture is scaled afterwards; what was measured stands in
 * docs/decisions/0024-gravity-that-grows.md.
 */
export function startingValues(graph: Graph): LayoutSettings {
  const { offset, neighbour } = withoutSelfLoops(neighbourRows(graph));
  let tied = 0;
  for (let v = 0; v < graph.nodeCount; v++) if (offset[v + 1] > offset[v]) tied++;
  const mean = tied > 0 ? neighbour.length / tied : Infinity;
  return LayoutSettings.parse({
    ...(mean <= THIN ? { apart: 'little', iterations: 1000 } : {}),
    ...(mean < TREE ? { gravity: 0.04 } : {}),
    ...(graph.nodeCount > LARGE ? { iterations: 300 } : {}),
    ...(tied > FEW && mean > ALL_TIED * tied && areShares(graph) ? { weights: 'whole' } : {}),
  });
}

/** Whether weights are shares, 0 to 1, and not all of them 1; counts grow with how much a node is in use at all. */
function areShares({ weight }: Graph): boolean {
  return weight.every((one) => one <= 1) && weight.some((one) => one < 1);
}
