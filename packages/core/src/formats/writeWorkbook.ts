import { utils, write } from '@e965/xlsx';
import type { TableColumns } from '../network/tables';
import { formatCount } from '../words/sentence';
import { otherColumns, rowValues } from './networkRows';
import { nodeIds } from './writeTables';

/** Rows that a sheet has at most (ECMA-376). */
const MOST_ROWS = 1_048_576;
/** Letters that a cell has at most. */
const MOST_LETTERS = 32_767;

/** Why a network of this size cannot be a workbook; null where it can. */
export function sheetProblem(nodes: number, ties: number): string | null {
  const most = Math.max(nodes, ties);
  if (most < MOST_ROWS) return null;
  const what = ties === most ? 'ties' : 'nodes';
  return `A sheet holds ${formatCount(MOST_ROWS - 1)} rows, and this network has ${formatCount(most)} ${what}. Save it as CSV, Arrow or GraphML.`;
}

/** A network as a workbook (Office Open XML, ECMA-376) with a sheet of nodes and one of ties. Throws RangeError for one that is too large. */
export function networkWorkbook(nodes: TableColumns, edges: TableColumns, nodeCount: number): Uint8Array {
  const ids = nodeIds(nodes);
  const [ofNodes, ofEdges] = [otherColumns(nodes, 'id'), otherColumns(edges, 'source', 'target')];
  const [from, to] = [edges['source'], edges['target']];
  const problem = sheetProblem(nodeCount, from.length);
  if (problem) throw new RangeError(problem);
  const book = utils.book_new();
  const add = (name: string, rows: (string | number | null)[][]): void => {
    utils.book_append_sheet(book, utils.aoa_to_sheet(rows), name);
  };
  add('nodes', [
    ['id', ...ofNodes],
    ...Array.from({ length: nodeCount }, (_, v) => [ids[v], ...cells(nodes, ofNodes, v)]),
  ]);
  add('ties', [
    ['source', 'target', ...ofEdges],
    ...Array.from({ length: from.length }, (_, e) => [
      ids[Number(from[e])],
      ids[Number(to[e])],
      ...cells(edges, ofEdges, e),
    ]),
  ]);
  return new Uint8Array(write(book, { type: 'array', bookType: 'xlsx', compression: true }) as ArrayBuffer);
}

/** Texts are texts, also where they look like formulas; what is too long for a cell is cut. */
function cells(columns: TableColumns, names: readonly string[], row: number): (string | number | null)[] {
  const values = new Map(rowValues(columns, names, row));
  return names.map((name) => {
    const value = values.get(name) ?? null;
    return typeof value === 'string' ? value.slice(0, MOST_LETTERS) : value;
  });
}
