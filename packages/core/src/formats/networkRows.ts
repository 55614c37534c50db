import type { TableColumns } from '../network/tables';

/** Columns whose numbers are moments: written as ISO 8601, UTC. */
const MOMENTS = new Set(['first', 'last']);

/** What a row of a table of nodes or ties has, by the names of the columns; a value that is not a number is left out. */
export function rowValues(
  columns: TableColumns,
  names: readonly string[],
  row: number,
): [name: string, value: string | number][] {
  const values: [string, string | number][] = [];
  for (const name of names) {
    const value = columns[name][row];
    if (typeof value === 'string') values.push([name, value]);
    else if (Number.isFinite(value))
      values.push([name, MOMENTS.has(name) ? new Date(value).toISOString() : value]);
  }
  return values;
}

/** The columns of a table, without those that say what a row is. */
export function otherColumns(columns: TableColumns, ...without: readonly string[]): string[] {
  return Object.keys(columns).filter((name) => !without.includes(name));
}
