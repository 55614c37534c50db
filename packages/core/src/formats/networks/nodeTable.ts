import type { ImportMapping, SkippedRow } from '@pebble/contract';
import type { ColumnType } from '../../network/typedColumn';
import type { FileRecord } from '../record';

/** A node as a row of a table tells of it. */
export interface NodeRow {
  readonly key: string;
  /** Empty where the table names none. */
  readonly label: string;
  /** Texts of the columns that are kept, by column; empty cells are left out. */
  readonly attributes: Readonly<Record<string, string>>;
}

/** What the columns that are kept hold, as their roles say it. */
export function columnTypes({ columns }: ImportMapping): ReadonlyMap<string, ColumnType> {
  return new Map(
    columns.flatMap(({ name, role }) =>
      role === 'number' || role === 'attribute'
        ? [[name, role === 'number' ? ('number' as const) : ('text' as const)] as const]
        : [],
    ),
  );
}

/** A function that hands on the node of a row, or says why the row has none. A node that stands twice keeps its first row. */
export function takeNode(
  reading: ImportMapping,
  onNode: (node: NodeRow) => void,
): (record: FileRecord) => SkippedRow | null {
  const at = (role: string): number => reading.columns.findIndex((column) => column.role === role);
  const node = at('node');
  const label = at('authorName');
  const rest = reading.columns.flatMap(({ role, name }, i) =>
    role === 'number' || role === 'attribute' ? [{ name, i }] : [],
  );
  const seen = new Map<string, number>();
  return ({ row, values }) => {
    const key = values[node].trim();
    const skip = (reason: string): SkippedRow => ({ row, field: reading.columns[node].name, reason });
    if (key === '') return skip('The row names no node.');
    const before = seen.get(key);
    if (before !== undefined) return skip(`The node stands in row ${before} already.`);
    seen.set(key, row);
    const given = rest.filter(({ i }) => values[i].trim() !== '');
    onNode({
      key,
      label: label < 0 ? '' : values[label].trim(),
      attributes: Object.fromEntries(given.map(({ name, i }) => [name, values[i].trim()])),
    });
    return null;
  };
}
