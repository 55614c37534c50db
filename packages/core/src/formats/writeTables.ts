import { textsOf, type TableColumns } from '../network/tables';
import { safeCsvRow } from './writeCsv';

/** What nodes are called in both tables, so that these join: their handles where no two are the same, else numbers. */
export function nodeIds(nodes: TableColumns): readonly string[] {
  const handles = textsOf(nodes, 'handle');
  return new Set(handles).size === handles.length ? handles : handles.map((_, v) => `n${v}`);
}

/** The tables of a network, so that they join: ties by the ids of nodes. */
export function joinedTables(
  nodes: TableColumns,
  edges: TableColumns,
): { readonly nodes: TableColumns; readonly ties: TableColumns } {
  const ids = nodeIds(nodes);
  const { id: _, ...told } = nodes;
  const { source, target, ...more } = edges;
  const ends = (of: TableColumns[string]): string[] => Array.from(of as ArrayLike<number>, (v) => ids[v]);
  return { nodes: { id: ids, ...told }, ties: { source: ends(source), target: ends(target), ...more } };
}

/** The node table as CSV, all columns; a value that is not a number is an empty cell. */
export function writeNodesCsv(nodes: TableColumns, nodeCount: number): string {
  return [...nodesCsvParts(nodes, nodeCount)].join('').slice(1);
}

/** The same row by row, with the mark by which spreadsheets know its encoding. */
export function* nodesCsvParts(nodes: TableColumns, nodeCount: number): Generator<string> {
  const ids = nodeIds(nodes);
  const names = ['id', ...Object.keys(nodes).filter((name) => name !== 'id')];
  yield `\ufeff${safeCsvRow(names)}`;
  for (let v = 0; v < nodeCount; v++)
    yield safeCsvRow(names.map((name) => (name === 'id' ? ids[v] : cell(nodes[name][v]))));
}

/** The edge table as CSV, all columns, with the ends of each tie by the ids of the node table. Moments are RFC 3339, UTC. */
export function writeTiesCsv(edges: TableColumns, handles: readonly string[]): string {
  return [...tiesCsvParts(edges, handles)].join('').slice(1);
}

/** The same row by row, with the mark by which spreadsheets know its encoding. */
export function* tiesCsvParts(edges: TableColumns, handles: readonly string[]): Generator<string> {
  const names = Object.keys(edges).filter((name) => name !== 'source' && name !== 'target');
  yield `\ufeff${safeCsvRow(['source', 'target', ...names])}`;
  for (let e = 0; e < edges['source'].length; e++) {
    const ends = [handles[Number(edges['source'][e])], handles[Number(edges['target'][e])]];
    const rest = names.map((name) => (MOMENTS.has(name) ? moment(edges[name][e]) : cell(edges[name][e])));
    yield safeCsvRow([...ends, ...rest]);
  }
}

const MOMENTS = new Set(['first', 'last']);

function cell(value: number | string): number | string | null {
  return typeof value === 'number' && !Number.isFinite(value) ? null : value;
}

function moment(value: number | string): string | null {
  return typeof value === 'number' && Number.isFinite(value) ? new Date(value).toISOString() : null;
}
