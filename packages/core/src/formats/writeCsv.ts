/** A cell that a spreadsheet would run as a formula gets an apostrophe before it, as is common practice. */
export function harmless(cell: string): string {
  return /^[=+\-@\t\r]/.test(cell) && !/^-?\d+(?:\.\d+)?(?:e[+-]?\d+)?$/i.test(cell) ? `'${cell}` : cell;
}

type Cell = string | number | null;

/** One row by RFC 4180: quoted where needed, quotation marks doubled, ended by CRLF. */
export function csvRow(cells: readonly Cell[]): string {
  return `${cells.map((cell) => quote(String(cell ?? ''))).join(',')}\r\n`;
}

/** The same with every text cell made harmless, for files that people open in a spreadsheet. */
export function safeCsvRow(cells: readonly Cell[]): string {
  return csvRow(cells.map((cell) => (typeof cell === 'string' ? harmless(cell) : cell)));
}

/** A whole file of such rows. */
export function saveableCsv(rows: readonly (readonly Cell[])[]): string {
  return rows.map((row) => safeCsvRow(row)).join('');
}

function quote(cell: string): string {
  return /[",\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell;
}
