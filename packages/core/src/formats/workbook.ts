import { read, type CellObject } from '@e965/xlsx';
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
      const rows = rowsOf(sheets[name]['!data'] ?? []);
      return { name, rows, isWhole: mostRows === 0 || rows.length < mostRows };
    });
  } catch (error) {
    throw new UnreadableFile(
      `The workbook cannot be opened: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
}

/** Rows without cells, and cells without a value, are holes in the library's lists. */
function rowsOf(data: readonly (readonly (CellObject | undefined)[] | undefined)[]): string[][] {
  return Array.from(data, (row) => Array.from(row ?? [], cellText));
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
