import { wholeShown, type ColumnInfo, type MapDescription, type Network, type Shown } from '@pebble/contract';
import { fitting } from '../map/description/shown';
import type { DailyTieCounts } from '../map/network/dailyTieCounts';
import type { PreparedMap } from '../map/scene/prepare';
import { graphOf, numbersOf, textsIn, type TableColumns } from '../network/tables';
import { kindOf, nodeWords, wovenAs } from '../weaves';
import type { HeldColumn, HeldMap } from './heldMap';

/** What of a map a page holds. */
export interface Holding {
  /** Columns of nodes beside those that the map needs. */
  readonly columns: readonly string[];
  /** Whether the days on which ties have messages are held, where they are known. */
  readonly days: boolean;
  /** Whether ties have their numbers of messages by kind. */
  readonly counts: boolean;
}

const DAY = 86_400_000;
/** Places in tenths of a unit: finer than anybody sees. */
const FINE = 10;
const OWN = new Set(['id', 'handle', 'name']);

/** What is shown of a map, to be put into a page; what is not shown is not in it. Without messages. */
export function holdMap(
  map: PreparedMap,
  told: Pick<Network, 'weave' | 'columns'> & Partial<Pick<Network, 'opened'>>,
  places: { readonly x: ArrayLike<number>; readonly y: ArrayLike<number> },
  holding: Holding,
): HeldMap {
  const { network, nodes, edges, description } = map;
  const weave = wovenAs(told);
  const needed = neededColumns(description, network.nodes);
  const names = Object.keys(network.nodes).filter(
    (name) => !OWN.has(name) && (needed.has(name) || holding.columns.includes(name)),
  );
  const known = new Map(told.columns.map((one) => [one.name, one]));
  const [source, target] = ['source', 'target'].map((name) => numbersOf(network.edges, name));
  const ties = tieNames(network.edges, description, holding);
  return {
    nodeCount: network.nodeCount,
    directed: map.directed,
    nodeWords: nodeWords(weave),
    tieMeaning: weave ? kindOf(weave).meaning(weave) : '',
    description: heldDescription(map),
    nodes: Array.from(nodes),
    pale: map.pale ? Array.from(nodes).filter((v) => map.pale![v] === 1) : [],
    labels: Array.from(nodes, (v) => map.labels[v]),
    columns: Object.fromEntries(names.map((name) => [name, heldColumn(network.nodes[name], nodes)])),
    infos: Object.fromEntries(names.map((name) => [name, infoOf(name, known.get(name))])),
    x: Array.from(nodes, (v) => Math.round(places.x[v] * FINE) / FINE),
    y: Array.from(nodes, (v) => Math.round(places.y[v] * FINE) / FINE),
    source: Array.from(edges, (e) => source[e]),
    target: Array.from(edges, (e) => target[e]),
    tieColumns: Object.fromEntries(ties.map((name) => [name, heldColumn(network.edges[name], edges)])),
    widthBounds: map.widthBounds,
    titles: network.titles ?? {},
    days:
      holding.days && network.dailyTieCounts
        ? heldDays(network.dailyTieCounts, edges, description.show.period)
        : null,
    messages: null,
  };
}

/** The columns by which a map is drawn, by name; those by which something was left out are none of them. */
export function neededColumns(
  { show: _, names, ...drawn }: MapDescription,
  nodes: TableColumns,
): Set<string> {
  const said = new Set<string>([names.column]);
  JSON.stringify(drawn, (_key, value: unknown) => {
    if (typeof value === 'string') said.add(value);
    return value;
  });
  return new Set(Object.keys(nodes).filter((name) => said.has(name)));
}

/** The description without what it left out: that is not there any more. Who may be named is said node by node. */
function heldDescription({ description, network, nodes }: PreparedMap): MapDescription {
  const { names } = description;
  const graph = graphOf(network.nodeCount, network.edges);
  const named = fitting(network, graph, names.where);
  const chosen = Array.from(nodes).filter((v) => named?.[v] === 1);
  return {
    ...description,
    held: [],
    names: {
      ...names,
      where: named
        ? { joined: 'and', conditions: [{ what: 'chosen', nodes: chosen, not: false }] }
        : names.where,
    },
    show: wholeShown,
  };
}

function tieNames(edges: TableColumns, { ties }: MapDescription, { counts }: Holding): string[] {
  const said = new Set(['weight', 'ownWeight', ties.number.column, ties.names.column]);
  const byKind = ties.colour === 'by kind' || ties.names.column === 'kinds' || counts;
  return Object.keys(edges).filter((name) => said.has(name) || (byKind && KINDS.has(name)));
}

const KINDS = new Set(['replies', 'quotes', 'mentions', 'reposts']);

function heldColumn(column: TableColumns[string], rows: Uint32Array): HeldColumn {
  if (!ArrayBuffer.isView(column)) {
    const texts = textsIn(column);
    return Array.from(rows, (row) => texts[row]);
  }
  return Array.from(rows, (row) =>
    Number.isFinite(column[row]) ? Number(column[row].toPrecision(6)) : null,
  );
}

function infoOf(name: string, info: ColumnInfo | undefined): HeldMap['infos'][string] {
  return { title: info?.title ?? name, how: info?.how ?? '' };
}

/** The days of what is shown: those of the period, where there is one. */
function heldDays(
  { edge, day, messages }: DailyTieCounts,
  edges: Uint32Array,
  period: Shown['period'],
): HeldMap['days'] {
  const place = new Map(Array.from(edges, (e, i) => [e, i]));
  const { from = null, until = null } = period ?? {};
  const isWithin = (time: number): boolean =>
    (from === null || time >= from) && (until === null || time < until);
  const rows = [...edge.keys()].filter((i) => place.has(edge[i]) && isWithin(day[i]));
  const first = rows.reduce((least, i) => Math.min(least, day[i]), Infinity);
  if (rows.length === 0) return null;
  return {
    first,
    tie: rows.map((i) => place.get(edge[i])!),
    day: rows.map((i) => Math.round((day[i] - first) / DAY)),
    messages: rows.map((i) => messages[i]),
  };
}
