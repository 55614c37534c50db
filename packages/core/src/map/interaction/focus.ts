import type { Csr } from '../../graph/csr';
import { numbersOf } from '../../network/tables';
import type { MapNetwork } from '../network/mapNetwork';
import type { Focus } from '../scene/sceneInput';

/** One node or several, with their ties; for one node with its neighbours too, for several with the ties among them. */
export function focusOnNodes(data: MapNetwork, rows: Csr, nodes: readonly number[]): Focus {
  const own = new Set(nodes);
  const [only] = nodes;
  const around = new Set(
    nodes.length === 1 ? rows.neighbour.slice(rows.offset[only], rows.offset[only + 1]) : [],
  );
  return { nodes: own, around, edges: edgesOf(data, own, nodes.length === 1 ? 'any' : 'both') };
}

/** Some ties with their ends; a tie is told by its ends. */
export function focusOnTies(
  data: MapNetwork,
  ties: readonly { readonly source: number; readonly target: number }[],
): Focus {
  const source = numbersOf(data.edges, 'source');
  const target = numbersOf(data.edges, 'target');
  const wanted = new Set(ties.map((tie) => tie.source * data.nodeCount + tie.target));
  const edges = new Set<number>();
  for (let e = 0; e < source.length; e++)
    if (wanted.has(source[e] * data.nodeCount + target[e])) edges.add(e);
  const nodes = new Set(ties.flatMap((tie) => [tie.source, tie.target]));
  return { nodes, around: nodes, edges };
}

/** The nodes of a community. */
export function focusOnCommunity(data: MapNetwork, community: number): Focus {
  const group = numbersOf(data.nodes, 'community');
  const around = new Set<number>();
  group.forEach((value: number, v: number) => void (value === community && around.add(v)));
  return { nodes: new Set(), around, edges: new Set() };
}

function edgesOf(data: MapNetwork, nodes: ReadonlySet<number>, ends: 'any' | 'both'): Set<number> {
  const source = numbersOf(data.edges, 'source');
  const target = numbersOf(data.edges, 'target');
  const edges = new Set<number>();
  for (let e = 0; e < source.length; e++) {
    const [a, b] = [nodes.has(source[e]), nodes.has(target[e])];
    if (ends === 'any' ? a || b : a && b) edges.add(e);
  }
  return edges;
}
