import type { TableColumns } from '../network/tables';
import { safeCsvRow } from './writeCsv';

/** The node table as CSV, all columns; a value that is not a number is an empty cell. */
export function writeNodesCsv(nodes: TableColumns, nodeCount: number): string {
  return [...nodesCsvParts(nodes, nodeCount)].join('').slice(1);
}

/** The same row by row, with the mark by which spreadsheets know its encoding. */
export function* nodesCsvParts(nodes: TableColumns, nodeCount: number): Generator<string> {
  const names = Object.keys(nodes);
  yield `\ufeff${safeCsvRow(names)}`;
  for (let v = 0; v < nodeCount; v++) yield safeCsvRow(names.map((name) => cell(nodes[name][v])));
}

/** The edge table as CSV, all columns, with the ends of each tie by handle. Moments are RFC 3339, UTC. */
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
