/** A cell that a spreadsheet would run as a formula gets an apostrophe before it, as is common practice. */
export function harmless(cell: string): string {
  return /^[=+\-@\t\r]/.test(cell) && !/^-?\d+(?:\.\d+)?(?:e[+-]?\d+)?$/i.test(cell) ? `'${cell}` : cell;
}

/** One row by RFC 4180: quoted where needed, quotation marks doubled, ended by CRLF. */
export function csvRow(cells: readonly (string | number | null)[]): string {
  return cells.map((cell) => (typeof cell === 'number' ? String(cell) : quote(harmless(cell ?? '')))).join(',') + '\r\n';
}

function quote(cell: string): string {
  return /[",\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell;
}
