import readSheets from 'read-excel-file/universal';
import type { RecordReader, RecordSink } from './record';
import { UnreadableFile } from './unreadable';

/** A sheet of a workbook: rows of cells as text. */
export interface Sheet {
  readonly name: string;
  readonly rows: readonly (readonly string[])[];
}

/**
 * The sheets of a workbook (Office Open XML, ECMA-376), read by the read-excel-file library. Formulas give their stored values; dates
 * become RFC 3339 in UTC, since a workbook knows no zones. Throws UnreadableFile when it cannot be opened.
 */
export async function readWorkbook(bytes: Uint8Array): Promise<Sheet[]> {
  try {
    const { buffer } = new Uint8Array(bytes);
    const sheets = (await readSheets(buffer)) as unknown as { sheet: string; data: unknown[][] }[];
    return sheets.map(({ sheet, data }) => ({ name: sheet, rows: data.map((row) => row.map(cellText)) }));
  } catch (error) {
    // The library calls itself once for each piece of a sheet, and makes the pieces smaller where time runs.
    if (isStackOverflow(error))
      throw new UnreadableFile(
        'The workbook is too large to be read here. Save its sheet as CSV and take that.',
      );
    throw new UnreadableFile(
      `The workbook cannot be opened: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
}

function isStackOverflow(error: unknown): boolean {
  const { message, cause } = error as { message?: string; cause?: unknown };
  return error instanceof RangeError || cause instanceof RangeError || /call stack/.test(message ?? '');
}

function cellText(cell: unknown): string {
  if (cell === null || cell === undefined) return '';
  if (cell instanceof Date) return Number.isNaN(cell.getTime()) ? '' : cell.toISOString();
  return typeof cell === 'object' ? JSON.stringify(cell) : String(cell as string | number | boolean);
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
