import Papa from 'papaparse';

/**
 * Cells that a spreadsheet would run as a formula; an apostrophe before them keeps it from that, as is common practice. Numbers with a sign
 * are none.
 */
const FORMULA = /^(?!-?\d+(?:\.\d+)?(?:e[+-]?\d+)?$)[=+\-@\t\r]/i;

type Cell = string | number | null;

/** One row by RFC 4180: quoted where needed, quotation marks doubled, ended by CRLF. */
export function csvRow(cells: readonly Cell[]): string {
  return `${Papa.unparse([[...cells]])}\r\n`;
}

/** The same with every text cell made harmless, for files that people open in a spreadsheet. */
export function safeCsvRow(cells: readonly Cell[]): string {
  return `${Papa.unparse([[...cells]], { escapeFormulae: FORMULA })}\r\n`;
}

/** A whole file of such rows. */
export function saveableCsv(rows: readonly (readonly Cell[])[]): string {
  return rows.map((row) => safeCsvRow(row)).join('');
}
