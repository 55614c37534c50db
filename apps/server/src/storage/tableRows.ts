/** One row by the names of its columns; null where there is nothing. */
export type Row = Readonly<Record<string, string | number | null>>;

/** Rows with the columns that they have. */
export interface Rows {
  readonly columns: readonly string[];
  readonly rows: Iterable<Row>;
}

/** What further columns are called: one whose name is taken says that it is from the file. */
export function furtherColumns(own: readonly string[], further: Iterable<string>): Map<string, string> {
  return new Map(
    [...further].sort().map((name) => [name, own.includes(name) ? `${name} in file` : name] as const),
  );
}

export function renamed(further: Row, names: ReadonlyMap<string, string>): Row {
  return Object.fromEntries(Object.entries(further).map(([name, value]) => [names.get(name) ?? name, value]));
}

/** A moment by ISO 8601, in UTC. */
export function isoTime(time: number | null): string | null {
  return time === null ? null : new Date(time).toISOString();
}
