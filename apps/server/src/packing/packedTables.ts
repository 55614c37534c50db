import type { ColumnInfo } from '@pebble/contract';
import {
  graphmlParts,
  joinedTables,
  nodeIds,
  nodesCsvParts,
  saveableCsv,
  textsIn,
  tiesCsvParts,
  toArrow,
  type DailyTieCounts,
  type HeldPortrait,
  type TableColumns,
} from '@pebble/core';
import type { PackedColumn, PackedTable } from '@pebble/core/documents';
import { jsonGraphParts, toParquet } from '@pebble/core/files';
import type { PackedNetwork } from './packedMap';

/** A file that is to go into a package. */
export interface ToPack {
  readonly place: string;
  readonly what: string;
  readonly type: string;
  /** Made when it is needed. */
  readonly content: () => Uint8Array | Promise<Uint8Array>;
  readonly table?: PackedTable;
}

const CSV = 'text/csv';
const ARROW = 'application/vnd.apache.arrow.file';
const PARQUET = 'application/vnd.apache.parquet';

/** What columns of nodes say that every network has. */
const NODES: readonly PackedColumn[] = [
  { name: 'id', type: 'string', title: 'node', how: 'By this the tables join.' },
  { name: 'handle', type: 'string', title: 'name', how: 'What the node is called on the map.' },
  { name: 'name', type: 'string', title: 'full name', how: 'As its profile says; empty for pseudonyms.' },
];
const PLACES: readonly PackedColumn[] = [
  { name: 'x', type: 'number', title: 'x', how: 'Where the node lies on the map, to the right.' },
  { name: 'y', type: 'number', title: 'y', how: 'Where the node lies on the map, downwards.' },
];
/** What columns of ties say. */
const TIES: readonly PackedColumn[] = [
  { name: 'source', type: 'string', title: 'from', how: 'The node at the beginning of the tie.' },
  { name: 'target', type: 'string', title: 'to', how: 'The node at the end of the tie.' },
  {
    name: 'weight',
    type: 'number',
    title: 'weight',
    how: 'How strong the tie is, as its network was woven.',
  },
  {
    name: 'first',
    type: 'datetime',
    title: 'first',
    how: 'When the first message of the tie was written, UTC.',
  },
  {
    name: 'last',
    type: 'datetime',
    title: 'last',
    how: 'When the last message of the tie was written, UTC.',
  },
];

/** The network as tables, in open formats: for spreadsheets, for programs that read columns, and for graph libraries. */
export function packedTables(packed: PackedNetwork, portraits: readonly HeldPortrait[]): ToPack[] {
  const { network, edges, days } = packed;
  const nodes = placed(packed);
  const joined = joinedTables(nodes, edges);
  const tables = { nodes: nodesTable(network.columns, nodes), ties: tiesTable(edges) };
  const ids = nodeIds(nodes);
  return [
    {
      ...file('data/nodes.csv', 'The nodes, with every column that goes out.', CSV),
      content: () => text(nodesCsvParts(nodes, network.nodes)),
      table: tables.nodes,
    },
    {
      ...file('data/ties.csv', 'The ties, by the nodes at their ends.', CSV),
      content: () => text(tiesCsvParts(edges, ids)),
      table: tables.ties,
    },
    groupsFile(packed, portraits),
    ...(days ? [daysFile(days, edges, ids)] : []),
    ...(network.edges > 0
      ? [
          {
            ...file('data/ties.parquet', 'The same ties as Parquet.', PARQUET),
            content: () => toParquet(joined.ties),
            table: tables.ties,
          },
        ]
      : []),
    {
      ...file('data/nodes.parquet', 'The same nodes as Parquet.', PARQUET),
      content: () => toParquet(joined.nodes),
      table: tables.nodes,
    },
    {
      ...file('data/network.graphml', 'The whole network as GraphML.', 'application/graphml+xml'),
      content: () => text(graphmlParts(nodes, edges, network.nodes, network.directed)),
    },
    {
      ...file('data/network.json', 'The whole network as JSON Graph.', 'application/vnd.jgf+json'),
      content: () => text(jsonGraphParts(nodes, edges, network.nodes, network.directed, network.name)),
    },
    // Exactly as the application keeps them: from these it opens the package.
    {
      ...file('map/nodes.arrow', 'The nodes as Arrow, exactly.', ARROW),
      content: () => toArrow(packed.table.nodes),
    },
    {
      ...file('map/edges.arrow', 'The ties as Arrow, by places of nodes, exactly.', ARROW),
      content: () => toArrow(edges),
    },
    ...(days
      ? [
          {
            ...file('map/days.arrow', 'Messages of ties by day as Arrow, by places of ties.', ARROW),
            content: () => toArrow({ ...days }),
          },
        ]
      : []),
  ];
}

const file = (place: string, what: string, type: string) => ({ place, what, type });

/** Without the mark that only spreadsheets need. */
function text(parts: Iterable<string>): Uint8Array {
  return Buffer.from([...parts].join('').replace(/^\ufeff/, ''));
}

/** The nodes with their places; a column of the network's own stays, should one be called x. */
function placed({ table, positions, map }: PackedNetwork): TableColumns {
  const bytes = positions.get(map.map.positions)!;
  const along = (offset: number): Float64Array =>
    Float64Array.from({ length: bytes.length / 8 }, (_, v) => bytes.readFloatLE(8 * v + offset));
  return { ...table.nodes, x: along(0), y: along(4), ...table.nodes };
}

function nodesTable(infos: readonly ColumnInfo[], nodes: TableColumns): PackedTable {
  const known = new Map([...NODES, ...PLACES].map((column) => [column.name, column] as const));
  const own = new Map(infos.map((info) => [info.name, info]));
  const columns = ['id', ...Object.keys(nodes).filter((name) => name !== 'id')].map((name): PackedColumn => {
    const info = own.get(name);
    const type = ArrayBuffer.isView(nodes[name]) ? 'number' : 'string';
    if (info) return { name, type, title: info.title, how: info.how };
    return known.get(name) ?? { name, type, title: name, how: 'As it stands in the network.' };
  });
  return { name: 'nodes', columns, primaryKey: 'id' };
}

function tiesTable(edges: TableColumns): PackedTable {
  const known = new Map(TIES.map((column) => [column.name, column]));
  const columns = [
    'source',
    'target',
    ...Object.keys(edges).filter((name) => !['source', 'target'].includes(name)),
  ];
  return {
    name: 'ties',
    columns: columns.map(
      (name): PackedColumn =>
        known.get(name) ?? {
          name,
          type: ArrayBuffer.isView(edges[name]) ? 'number' : 'string',
          title: name,
          how: 'Messages of this kind behind the tie, or what its file says of it.',
        },
    ),
    foreignKeys: ['source', 'target'].map((field) => ({ field, table: 'nodes', of: 'id' })),
  };
}

/** The groups of every column of groups, with what they are called and what their portraits say. */
function groupsFile({ network, table }: PackedNetwork, portraits: readonly HeldPortrait[]): ToPack {
  const columns = network.columns
    .filter(({ name, type }) => name in table.nodes && (type === 'category' || name in table.titles))
    .map(({ name }) => name);
  const told = new Map(portraits.map((one) => [one.group, one]));
  const rows = columns.flatMap((column) => {
    const counts = new Map<string, number>();
    for (const value of textsIn(table.nodes[column])) counts.set(value, (counts.get(value) ?? 0) + 1);
    const titles = table.titles[column] ?? {};
    return [...counts]
      .filter(([value]) => value !== '' && value !== 'NaN')
      .sort(([a, first], [b, second]) => second - first || (a < b ? -1 : 1))
      .map(([value, count]) => {
        const portrait = titles[value] === undefined ? undefined : told.get(value);
        const typical = portrait?.lists.flatMap(({ terms }) => terms).join(' ') ?? '';
        return [column, value, titles[value] ?? '', count, portrait?.sentence ?? '', typical];
      });
  });
  const head: readonly PackedColumn[] = [
    {
      name: 'column',
      type: 'string',
      title: 'column',
      how: 'The column of nodes.csv in which the group stands.',
    },
    { name: 'group', type: 'string', title: 'group', how: 'Its value there.' },
    { name: 'title', type: 'string', title: 'title', how: 'What it is called; empty where it has no title.' },
    { name: 'nodes', type: 'integer', title: 'nodes', how: 'How many nodes are in it.' },
    {
      name: 'sentence',
      type: 'string',
      title: 'portrait',
      how: 'What its portrait says, where there is one.',
    },
    {
      name: 'typical',
      type: 'string',
      title: 'typical',
      how: 'Hashtags, words and domains that are typical for it.',
    },
  ];
  return {
    ...file('data/groups.csv', 'The groups of nodes, with their titles and portraits.', CSV),
    content: () => Buffer.from(saveableCsv([head.map(({ name }) => name), ...rows])),
    table: { name: 'groups', columns: head },
  };
}

function daysFile(
  { edge, day, messages }: DailyTieCounts,
  edges: TableColumns,
  ids: readonly string[],
): ToPack {
  const rows = Array.from(edge, (e, i) => [
    ids[Number(edges['source'][e])],
    ids[Number(edges['target'][e])],
    new Date(day[i]).toISOString().slice(0, 10),
    messages[i],
  ]);
  const columns: readonly PackedColumn[] = [
    ...TIES.slice(0, 2),
    { name: 'day', type: 'date', title: 'day', how: 'In UTC. Messages without a date are in none.' },
    { name: 'messages', type: 'integer', title: 'messages', how: 'Messages behind the tie on that day.' },
  ];
  return {
    ...file(
      'data/evidence.csv',
      'How many messages stand behind each tie, by day. The messages are not in it.',
      CSV,
    ),
    content: () => Buffer.from(saveableCsv([columns.map(({ name }) => name), ...rows])),
    table: {
      name: 'evidence',
      columns,
      foreignKeys: ['source', 'target'].map((field) => ({ field, table: 'nodes', of: 'id' })),
    },
  };
}
