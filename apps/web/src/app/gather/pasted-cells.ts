/**
 * Cells that were copied from a spreadsheet: rows by line ends, columns by tabs; a cell with a tab, a line end or a quotation mark stands
 * in quotation marks, with inner ones doubled (common practice of spreadsheets). Rows are filled up to the widest.
 */
export function asRows(text: string): string[][] {
  const rows: string[][] = [];
  let row: string[] = [];
  let at = 0;
  const body = text.replace(/\r\n?/g, '\n').replace(/\n+$/, '');
  while (at <= body.length) {
    const quoted = /"((?:[^"]|"")*)"(?=\t|\n|$)/y;
    quoted.lastIndex = at;
    const match = quoted.exec(body);
    const end = match ? quoted.lastIndex : nextMark(body, at);
    row.push(match ? match[1].replace(/""/g, '"') : body.slice(at, end));
    if (end >= body.length || body[end] === '\n') {
      rows.push(row);
      row = [];
    }
    at = end + 1;
  }
  if (rows.length === 1 && rows[0].length === 1 && rows[0][0] === '') return [];
  const width = Math.max(...rows.map((cells) => cells.length));
  return rows.map((cells) => [...cells, ...new Array<string>(width - cells.length).fill('')]);
}

/** The cells as tab-separated text with quotation marks where they are needed (RFC 4180 with tabs). */
export function asText(rows: readonly (readonly string[])[]): string {
  const cell = (value: string): string => (/[\t\n"]/.test(value) ? `"${value.replace(/"/g, '""')}"` : value);
  return rows.map((row) => row.map(cell).join('\t')).join('\n');
}

function nextMark(text: string, from: number): number {
  const tab = text.indexOf('\t', from);
  const line = text.indexOf('\n', from);
  const ends = [tab, line].filter((end) => end >= 0);
  return ends.length > 0 ? Math.min(...ends) : text.length;
}
