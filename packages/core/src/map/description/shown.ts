import type { Condition, NodeFilter, Shown } from '@pebble/contract';
import { weakComponents } from '../../graph/components';
import { neighbourRows, withoutSelfLoops } from '../../graph/csr';
import { keepPart } from '../../graph/filter';
import type { Graph } from '../../graph/graph';
import { coreNumbers } from '../../graph/cores';
import { graphOf, nodeLabels, numbersOf, textsIn } from '../../network/tables';
import type { MapNetwork } from '../network/mapNetwork';
import { messagesWithin } from '../network/dailyTieCounts';
import { weighedWithin } from '../network/weighedWithin';

/** The nodes and edges that are shown, ascending. */
export interface ShownPart {
  readonly nodes: Uint32Array;
  readonly edges: Uint32Array;
  /** 1 for nodes that stay pale, by node of the network; null where none do. */
  readonly pale: Uint8Array | null;
}

/**
 * The part of a network that is shown, with weights of ties as they were in the period. Ties are taken by weight and time first, then nodes by their conditions and communities, then the
 * largest component of what is left, then those without ties are left out.
 */
export function shownPart(whole: MapNetwork, show: Shown): ShownPart {
  const network = weighedWithin(whole, show.period);
  const graph = graphOf(network.nodeCount, network.edges);
  const n = network.nodeCount;
  const visible = new Uint8Array(n).fill(1);
  const fits = fitting(network, graph, show.where);
  const isPale = show.rest === 'pale';
  if (fits && !isPale) visible.set(fits);
  if (show.communities !== null && 'community' in network.nodes) {
    const chosen = new Set(show.communities);
    const community = numbersOf(network.nodes, 'community');
    for (let v = 0; v < n; v++) if (!chosen.has(community[v])) visible[v] = 0;
  }
  const inTime = timeTest(network, show);
  const edgeAlive = (e: number): boolean =>
    graph.weight[e] >= show.atLeast &&
    visible[graph.source[e]] === 1 &&
    visible[graph.target[e]] === 1 &&
    inTime(e);
  let alive = Array.from(graph.source.keys()).filter(edgeAlive);
  if (show.largestComponent) keepLargest(visible, graph.source, graph.target, alive);
  if (!show.isolates) {
    const tied = new Uint8Array(n);
    for (const e of alive)
      if (graph.source[e] !== graph.target[e]) tied[graph.source[e]] = tied[graph.target[e]] = 1;
    for (let v = 0; v < n; v++) visible[v] &= tied[v];
  }
  alive = alive.filter((e) => visible[graph.source[e]] === 1 && visible[graph.target[e]] === 1);
  const nodes: number[] = [];
  for (let v = 0; v < n; v++) if (visible[v]) nodes.push(v);
  return {
    nodes: Uint32Array.from(nodes),
    edges: Uint32Array.from(alive),
    pale: fits && isPale ? fits.map((one) => 1 - one) : null,
  };
}

/** The shown part as a graph of its own, pale nodes left out, and the numbers of its nodes in the whole. */
export function shownGraph(whole: MapNetwork, show: Shown): { graph: Graph; node: Uint32Array } {
  const network = weighedWithin(whole, show.period);
  const { nodes, edges } = shownPart(network, { ...show, rest: 'hidden' });
  const isNode = new Uint8Array(network.nodeCount);
  for (const v of nodes) isNode[v] = 1;
  const isEdge = new Uint8Array(network.edges['source'].length);
  for (const e of edges) isEdge[e] = 1;
  return keepPart(
    graphOf(network.nodeCount, network.edges),
    (v) => isNode[v] === 1,
    (e) => isEdge[e] === 1,
  );
}

/** 1 for each node that fits the filter; null where there is no condition. */
export function fitting(
  network: MapNetwork,
  graph: Graph,
  { joined, conditions }: NodeFilter,
): Uint8Array | null {
  if (conditions.length === 0) return null;
  const fits = new Uint8Array(network.nodeCount).fill(joined === 'and' ? 1 : 0);
  for (const condition of conditions) {
    const test = testOf(network, graph, condition);
    for (let v = 0; v < fits.length; v++) {
      const one = test(v) !== condition.not ? 1 : 0;
      fits[v] = joined === 'and' ? fits[v] & one : fits[v] | one;
    }
  }
  return fits;
}

function testOf(network: MapNetwork, graph: Graph, condition: Condition): (node: number) => boolean {
  switch (condition.what) {
    case 'range': {
      const values = network.nodes[condition.column];
      if (!ArrayBuffer.isView(values)) return () => false;
      const { from, until } = condition;
      return (v) =>
        !Number.isNaN(Number(values[v])) &&
        (from === null || Number(values[v]) >= from) &&
        (until === null || Number(values[v]) <= until);
    }
    case 'values': {
      if (!(condition.column in network.nodes)) return () => false;
      const texts = textsIn(network.nodes[condition.column]);
      const wanted = new Set(condition.values);
      return (v) => wanted.has(texts[v]);
    }
    case 'named': {
      const wanted = alternatives(condition.text);
      const labels = nodeLabels(network.nodes);
      const names = textsIn(network.nodes['name'] ?? []);
      return (v) => {
        const text = `${labels[v]}\n${names[v] ?? ''}`.toLowerCase();
        return wanted.some((one) => text.includes(one));
      };
    }
    case 'core': {
      const core = coreNumbers(withoutSelfLoops(neighbourRows(graph)));
      return (v) => core[v] >= condition.atLeast;
    }
    case 'components': {
      const { of } = weakComponents(graph);
      return (v) => of[v] < condition.largest;
    }
    case 'near': {
      const near = within(graph, condition.nodes, condition.steps, condition.way);
      return (v) => near[v] === 1;
    }
    case 'chosen': {
      const chosen = new Set(condition.nodes);
      return (v) => chosen.has(v);
    }
  }
}

/** The texts of "a | b", in lower case. */
export function alternatives(text: string): string[] {
  return text
    .toLowerCase()
    .split('|')
    .map((one) => one.trim())
    .filter((one) => one !== '');
}

/** 1 for nodes that are reached from some in so many steps, these included. */
export function within(
  { nodeCount, source, target }: Graph,
  nodes: readonly number[],
  steps: number,
  way: 'either' | 'out' | 'in',
): Uint8Array {
  let reached = new Uint8Array(nodeCount);
  for (const v of nodes) if (v < nodeCount) reached[v] = 1;
  for (let step = 0; step < steps; step++) {
    const next = reached.slice();
    for (let e = 0; e < source.length; e++) {
      if (way !== 'in' && reached[source[e]]) next[target[e]] = 1;
      if (way !== 'out' && reached[target[e]]) next[source[e]] = 1;
    }
    reached = next;
  }
  return reached;
}

/**
 * Whether a tie has a message in the period. Where only its first and its last one are known, whether it may have one: its first is before
 * the end, and its last after the begin. Undated ones are outside.
 */
function timeTest({ edges, dailyTieCounts }: MapNetwork, { period }: Shown): (edge: number) => boolean {
  if (period && dailyTieCounts) {
    const within = messagesWithin(dailyTieCounts, edges['source'].length, period);
    return (e) => within[e] > 0;
  }
  if (!period || !('first' in edges) || !('last' in edges)) return () => true;
  const first = numbersOf(edges, 'first');
  const last = numbersOf(edges, 'last');
  const { from, until } = period;
  return (e) => (from === null || last[e] >= from) && (until === null || first[e] < until);
}

function keepLargest(
  visible: Uint8Array,
  source: Uint32Array,
  target: Uint32Array,
  alive: readonly number[],
): void {
  const components = weakComponents({
    nodeCount: visible.length,
    source: Uint32Array.from(alive, (e) => source[e]),
    target: Uint32Array.from(alive, (e) => target[e]),
    weight: new Float64Array(alive.length),
  });
  for (let v = 0; v < visible.length; v++) if (components.of[v] !== 0) visible[v] = 0;
}
