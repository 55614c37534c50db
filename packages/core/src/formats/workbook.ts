import { read, type CellObject } from '@e965/xlsx';
import { formatCount } from '../words/sentence';
import type { RecordReader, RecordSink } from './record';
import { UnreadableFile } from './unreadable';

/** A sheet of a workbook: rows of cells as text. */
export interface Sheet {
  readonly name: string;
  readonly rows: readonly (readonly string[])[];
  /** False when the sheet may have more rows than were read. */
  readonly isWhole: boolean;
}

/**
 * The sheets of a workbook (Office Open XML, ECMA-376), read by the xlsx library. Formulas give their stored values; dates become RFC 3339
 * in UTC, since a workbook knows no zones.
 * @param mostRows rows of each sheet that are read at most; 0 for all
 * Throws UnreadableFile when it cannot be opened.
 */
export function readWorkbook(bytes: Uint8Array, mostRows = 0): Sheet[] {
  try {
    const { SheetNames: names, Sheets: sheets } = read(bytes, {
      dense: true,
      cellDates: true,
      UTC: true,
      cellFormula: false,
      cellHTML: false,
      cellText: false,
      sheetRows: mostRows,
    });
    return names.map((name) => {
      const rows = rowsOf(name, sheets[name]['!data'] ?? []);
      return { name, rows, isWhole: mostRows === 0 || rows.length < mostRows };
    });
  } catch (error) {
    if (error instanceof UnreadableFile) throw error;
    throw new UnreadableFile(
      `The workbook cannot be opened: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
}

/** Rows of a sheet at most (Office Open XML, as spreadsheets hold them). */
const MOST_ROWS = 1_048_576;
/** Columns that are read at most; a sheet may have 16,384, mostly without anything in them. */
export const MOST_COLUMNS = 2000;
/** Characters of a cell at most: spreadsheets allow 32,767. */
const LONGEST_CELL = 1_000_000;

type Row = readonly (CellObject | undefined)[];

/**
 * Rows without cells, and cells without a value, are holes in the library's lists: what lies far out makes the lists long, not full. Throws
 * UnreadableFile for a sheet that is larger than a sheet can be.
 */
function rowsOf(sheet: string, data: readonly (Row | undefined)[]): string[][] {
  if (data.length > MOST_ROWS)
    throw tooLarge(sheet, `a cell in row ${formatCount(data.length)}`, `${formatCount(MOST_ROWS)} rows`);
  data.forEach((row, r) => {
    if (row && row.length > MOST_COLUMNS)
      throw tooLarge(
        sheet,
        `a cell in column ${formatCount(row.length)} of row ${formatCount(r + 1)}`,
        `${formatCount(MOST_COLUMNS)} columns`,
      );
  });
  return Array.from(data, (row, r) =>
    Array.from(row ?? [], (cell) => {
      const text = cellText(cell);
      if (text.length > LONGEST_CELL)
        throw tooLarge(
          sheet,
          `${formatCount(text.length)} characters in a cell of row ${formatCount(r + 1)}`,
          `${formatCount(LONGEST_CELL)} in one cell`,
        );
      return text;
    }),
  );
}

function tooLarge(sheet: string, has: string, most: string): UnreadableFile {
  return new UnreadableFile(
    `The sheet “${sheet}” has ${has}; at most ${most} are read. Save what is needed of it as CSV.`,
  );
}

/** Milliseconds within which a moment is the whole second that was meant: a workbook keeps it as a part of a day. */
const SLACK = 2;

function cellText(cell: CellObject | undefined): string {
  // A formula that failed has no value.
  if (cell?.v === undefined || cell.t === 'e') return '';
  if (!(cell.v instanceof Date)) return String(cell.v);
  const time = cell.v.getTime();
  if (Number.isNaN(time)) return '';
  const second = Math.round(time / 1000) * 1000;
  return new Date(Math.abs(time - second) <= SLACK ? second : time).toISOString();
}

/** Hands on the rows of a sheet as records; its first row that is not blank names the columns. */
export function sheetRecords(
  { rows }: Sheet,
  sink: RecordSink,
  onHeader: (names: readonly string[]) => void = () => undefined,
): Pick<RecordReader, 'end'> {
  const isBlank = (row: readonly string[]): boolean => row.every((cell) => cell.trim() === '');
  const first = rows.findIndex((row) => !isBlank(row));
  const end = (): void => {
    if (first < 0) return;
    const header = rows[first].map((name, i) => name.trim() || `column ${i + 1}`);
    onHeader(header);
    for (let i = first + 1; i < rows.length; i++) {
      if (!isBlank(rows[i]))
        sink.onRecord({ row: i + 1, values: header.map((_, c) => rows[i][c] ?? ''), extra: null });
    }
  };
  return { end };
}
