import { BrokenNetwork, NetworkBuilder, type FoundNetwork } from './foundNetwork';

/** Whether a table is a square matrix: the names in its header stand in the same order in its first column. */
export function isSquareMatrix(header: readonly string[], rows: readonly (readonly string[])[]): boolean {
  const names = header.slice(1).map((name) => name.trim());
  return (
    names.length >= 2 &&
    rows.length > 0 &&
    rows.every((row, i) => i < names.length && row[0]?.trim() === names[i])
  );
}

/**
 * Reads an adjacency matrix: names in the first row and the first column, the weight of the tie from row to column in each cell; empty
 * cells and 0 are no tie. It is undirected when it is symmetric; then each tie stands once.
 * Throws BrokenNetwork that names row and column when it is not square, a name stands twice, or a cell is no number.
 */
export function readMatrix(header: readonly string[], rows: readonly (readonly string[])[]): FoundNetwork {
  const names = header.slice(1).map((name) => name.trim());
  const twice = names.find((name, i) => names.indexOf(name) < i);
  if (twice !== undefined) throw new BrokenNetwork(`The name “${twice}” stands twice in the first row.`, 1);
  if (rows.length !== names.length)
    throw new BrokenNetwork(
      `The matrix has ${names.length} columns and ${rows.length} rows; it must be square.`,
      rows.length + 1,
    );
  const weight = rows.map((row, i) => {
    if (row[0].trim() !== names[i])
      throw new BrokenNetwork(
        `Row ${i + 1} is “${row[0]}”, and column ${i + 1} is “${names[i]}”; they must be the same.`,
        i + 2,
      );
    return names.map((name, j) => cellOf(row[j + 1] ?? '', names[i], name, i + 2));
  });
  const symmetric = weight.every((row, i) => row.every((value, j) => value === weight[j][i]));
  const builder = new NetworkBuilder(!symmetric);
  for (const name of names) builder.node(name);
  for (let i = 0; i < names.length; i++) {
    for (let j = symmetric ? i : 0; j < names.length; j++)
      if (weight[i][j] !== 0) builder.edge(names[i], names[j], String(weight[i][j]), {}, i + 2);
  }
  builder.note(
    symmetric
      ? 'The matrix is symmetric; its ties have no direction.'
      : 'Ties go from the row to the column.',
  );
  return builder.finish();
}

function cellOf(cell: string, row: string, column: string, line: number): number {
  if (cell.trim() === '') return 0;
  const value = Number(cell);
  if (!Number.isFinite(value) || value < 0)
    throw new BrokenNetwork(
      `The cell of “${row}” and “${column}” is “${cell.slice(0, 30)}”, which is no weight.`,
      line,
    );
  return value;
}
