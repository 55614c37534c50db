import { columnTitle } from '../measures/columns';
import { numbersOf } from '../network/tables';
import { groupTitle } from '../map/style/groupTitles';
import type { PreparedMap } from '../map/scene/prepare';
import { formatValue } from '../words/formatValue';
import { capital, formatCount } from '../words/sentence';
import type { ReportBlock } from './report';

type Table = Extract<ReportBlock, { what: 'table' }>;

/** Columns of numbers that a table of nodes has beside its first one. */
const FURTHER = ['inDegree', 'outDegree', 'degree', 'betweenness', 'messages'] as const;
const MOST_COLUMNS = 4;

const percent = (part: number, whole: number): string =>
  whole > 0 ? `${((100 * part) / whole).toFixed(1)} %` : '';

/** The groups that have a colour of their own on a map, with the ties that are shown; null where colour is a number or there is one alone. */
export function groupTable(map: PreparedMap, title: string): Table | null {
  const { column } = map.description.colour;
  if (map.colourRange || map.groups.length < 2) return null;
  const { source, target, weight } = tiesOf(map);
  const within = new Float64Array(map.colours.length);
  const across = new Float64Array(map.colours.length);
  for (const e of map.edges) {
    const [a, b] = [map.colour[source[e]], map.colour[target[e]]];
    if (a === b) within[a] += weight[e];
    else {
      across[a] += weight[e];
      across[b] += weight[e];
    }
  }
  const rows = map.groups.map((group) => {
    const at = map.colours.indexOf(group.colour);
    const label = group.value < 0 ? 'all others' : groupTitle(map.network.titles, column, group);
    const [inner, outer] = [within[at], across[at]];
    return [
      label,
      formatCount(group.nodes),
      percent(group.nodes, map.nodes.length),
      formatValue(inner),
      formatValue(outer),
      percent(inner, inner + outer),
    ];
  });
  const numbers = ['Nodes', 'Share of nodes', 'Weight within', 'Weight to others', 'Share within'];
  return {
    what: 'table',
    title,
    columns: [
      { title: capital(columnTitle(column)), isNumber: false },
      ...numbers.map((one) => ({ title: one, isNumber: true })),
    ],
    rows,
  };
}

/**
 * The first nodes of a map by the number that their size says.
 * @param leftOut columns that do not go out
 */
export function nodeTable(
  map: PreparedMap,
  {
    title,
    most,
    leftOut,
  }: { readonly title: (by: string) => string; readonly most: number; readonly leftOut: readonly string[] },
): Table | null {
  const { nodes } = map.network;
  const isNumber = (name: string): boolean => ArrayBuffer.isView(nodes[name]) && !leftOut.includes(name);
  const columns = [...new Set([map.description.size.column, map.description.names.column, ...FURTHER])]
    .filter(isNumber)
    .slice(0, MOST_COLUMNS);
  if (columns.length === 0 || map.nodes.length === 0) return null;
  const values = columns.map((name) => numbersOf(nodes, name));
  // What has no value comes last.
  const rank = (v: number): number => (Number.isNaN(values[0][v]) ? -Infinity : values[0][v]);
  const first = [...map.nodes].sort((a, b) => rank(b) - rank(a) || a - b).slice(0, most);
  const { column } = map.description.colour;
  const hasGroups = map.colourRange === null && map.groups.length > 1;
  const titles = new Map(
    map.groups.map((group) => [
      group.colour,
      group.value < 0 ? '' : groupTitle(map.network.titles, column, group),
    ]),
  );
  return {
    what: 'table',
    title: title(columnTitle(columns[0])),
    columns: [
      { title: '', isNumber: true },
      { title: 'Name', isNumber: false },
      ...(hasGroups ? [{ title: capital(columnTitle(column)), isNumber: false }] : []),
      ...columns.map((name) => ({ title: capital(columnTitle(name)), isNumber: true })),
    ],
    rows: first.map((v, at) => [
      String(at + 1),
      map.labels[v],
      ...(hasGroups ? [titles.get(map.colours[map.colour[v]]) ?? ''] : []),
      ...values.map((column) => (Number.isNaN(column[v]) ? '' : formatValue(column[v]))),
    ]),
  };
}

function tiesOf({
  network: { edges },
}: PreparedMap): Record<'source' | 'target' | 'weight', ArrayLike<number>> {
  const [source, target, weight] = ['source', 'target', 'weight'].map((name) => numbersOf(edges, name));
  return { source, target, weight };
}
