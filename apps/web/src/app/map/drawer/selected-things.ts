import { BY_HAND, formatValue, nodeLabels, numbersOf, textsOf, type MapNetwork } from '@pebble/core';
import { hasOwnWeight, rankingColumn, tieDetail } from '../session/tie-columns';

interface TieLine {
  readonly node: number;
  readonly handle: string;
  readonly weight: number;
  readonly detail: string;
  /** Whether the tie leads to the node that is read. */
  readonly into: boolean;
}

const TIES_SHOWN = 60;
/** Numbers of a node that are shown, as far as its network has them. */
const NUMBERS = [
  'inDegree',
  'outDegree',
  'degree',
  'inStrength',
  'outStrength',
  'strength',
  'betweenness',
  'messages',
];

/** What is told of a node: its numbers with its rank, and its strongest ties. */
export function describeNode(
  data: MapNetwork,
  node: number,
  titles: ReadonlyMap<string, { title: string; how: string }>,
) {
  const source = numbersOf(data.edges, 'source');
  const target = numbersOf(data.edges, 'target');
  const weight = numbersOf(data.edges, 'weight');
  const handles = nodeLabels(data.nodes);
  const into: TieLine[] = [];
  const out: TieLine[] = [];
  const line = (other: number, e: number, leadsHere: boolean): TieLine => ({
    node: other,
    handle: handles[other],
    weight: weight[e],
    detail: tieDetail(data, e),
    into: leadsHere,
  });
  for (let e = 0; e < source.length; e++) {
    if (source[e] === node) out.push(line(target[e], e, false));
    else if (target[e] === node) into.push(line(source[e], e, true));
  }
  const byWeight = (a: TieLine, b: TieLine): number =>
    b.weight - a.weight || a.handle.localeCompare(b.handle);
  return {
    node,
    handle: textsOf(data.nodes, 'handle')[node],
    name: textsOf(data.nodes, 'name')[node],
    community: numbersOf(data.nodes, 'community')[node],
    numbers: shownNumbers(data).map((column) => {
      const values = numbersOf(data.nodes, column);
      const value = values[node];
      let higher = 0;
      let most = 0;
      for (const other of values) {
        if (other > value) higher++;
        if (other > most) most = other;
      }
      return {
        title: titles.get(column)?.title ?? column,
        how: titles.get(column)?.how ?? '',
        value,
        rank: higher + 1,
        share: most > 0 ? value / most : 0,
      };
    }),
    intoCount: into.length,
    outCount: out.length,
    both: [...into, ...out].sort(byWeight).slice(0, TIES_SHOWN),
    into: into.sort(byWeight).slice(0, TIES_SHOWN),
    out: out.sort(byWeight).slice(0, TIES_SHOWN),
  };
}

/** In an undirected network the degree says it all; in a directed one its two halves do. */
function shownNumbers({ nodes }: MapNetwork): string[] {
  const directed = 'inDegree' in nodes;
  return NUMBERS.filter((name) => name in nodes && !(directed && (name === 'degree' || name === 'strength')));
}

/** What is told of a tie; null where there is none. */
export function describeTie(data: MapNetwork, from: number, to: number) {
  const source = numbersOf(data.edges, 'source');
  const target = numbersOf(data.edges, 'target');
  const find = (a: number, b: number): number =>
    source.findIndex((s: number, e: number) => s === a && target[e] === b);
  const edge = find(from, to);
  const handles = nodeLabels(data.nodes);
  if (edge < 0) return null;
  return {
    from,
    to,
    fromHandle: handles[from],
    toHandle: handles[to],
    weight: numbersOf(data.edges, 'weight')[edge],
    detail: tieDetail(data, edge),
    first: 'first' in data.edges ? numbersOf(data.edges, 'first')[edge] : NaN,
    last: 'last' in data.edges ? numbersOf(data.edges, 'last')[edge] : NaN,
    hasOwnWeight: hasOwnWeight(data, edge),
    byHand: BY_HAND in data.edges ? textsOf(data.edges, BY_HAND)[edge] : '',
    hasBack: from !== to && find(to, from) >= 0,
  };
}

/** What is told of a community: its size, its ties, and who leads it. */
export function describeCommunity(data: MapNetwork, community: number) {
  const group = numbersOf(data.nodes, 'community');
  const { column, words } = rankingColumn(data);
  const degree = numbersOf(data.nodes, column);
  const handles = nodeLabels(data.nodes);
  const members: number[] = [];
  group.forEach((value: number, v: number) => void (value === community && members.push(v)));
  const source = numbersOf(data.edges, 'source');
  const target = numbersOf(data.edges, 'target');
  let inside = 0;
  let across = 0;
  for (let e = 0; e < source.length; e++) {
    const a = group[source[e]] === community;
    const b = group[target[e]] === community;
    if (a && b) inside++;
    else if (a || b) across++;
  }
  members.sort((a, b) => degree[b] - degree[a]);
  return {
    community,
    size: members.length,
    inside,
    across,
    leaders: members
      .slice(0, 8)
      .map((node) => ({ node, handle: handles[node], note: `${words} ${formatValue(degree[node])}` })),
  };
}
