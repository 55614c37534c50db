import type { ColumnRole, ImportMapping, SkippedRow } from '@pebble/contract';
import { dateReader } from './dates';
import type { FileRecord } from './record';

interface More {
  numbers: Record<string, number | string>;
  attributes: Record<string, string>;
}

/** The cells of a table's records by what their columns are. */
export class Cells {
  private readonly numbers: readonly NamedColumn[];
  private readonly attributes: readonly NamedColumn[];
  private readonly places = new Map<ColumnRole, number>();
  private readonly readDate: (written: string) => number | null;

  constructor(private readonly reading: ImportMapping) {
    this.numbers = columnsOf(reading, 'number');
    this.attributes = columnsOf(reading, 'attribute');
    this.readDate = dateReader(reading.dateForm, reading.zoneOffsetMinutes);
    reading.columns.forEach(({ role }, i) => {
      if (!this.places.has(role)) this.places.set(role, i);
    });
  }

  /** Where a role stands in a record's values; -1 where no column has it. */
  place(role: ColumnRole): number {
    return this.places.get(role) ?? -1;
  }

  /** A function that gives a record's value for a role, trimmed; empty where no column has it. */
  reader(role: ColumnRole): (record: FileRecord) => string {
    const i = this.place(role);
    return i < 0 ? () => '' : ({ values }) => values[i].trim();
  }

  /** The moment that is written; null for an empty text, a reason to skip the row where it is no date. */
  time(record: FileRecord, role: ColumnRole, written: string): number | null | SkippedRow {
    if (written === '') return null;
    const time = this.readDate(written);
    return time ?? this.skip(record, role, `The date cannot be read: “${clip(written)}”.`);
  }

  skip({ row }: FileRecord, role: ColumnRole, reason: string): SkippedRow {
    const i = this.place(role);
    return { row, field: i < 0 ? null : this.reading.columns[i].name, reason };
  }

  /** Numbers and attributes by the names of their columns. */
  more(record: FileRecord, language = ''): More {
    const attributes = readAttributes(this.attributes, record);
    return {
      numbers: readNumbers(this.numbers, record),
      attributes: language === '' ? attributes : { ...attributes, language },
    };
  }
}

/** A cell as a number where a number can hold it exactly, else as it was written. */
export function numberOrText(written: string): number | string {
  const number = Number(written);
  return Number.isFinite(number) && Math.abs(number) <= Number.MAX_SAFE_INTEGER ? number : written;
}

interface NamedColumn {
  readonly name: string;
  readonly index: number;
}

function columnsOf(reading: ImportMapping, role: string): NamedColumn[] {
  return reading.columns.flatMap((column, index) =>
    column.role === role ? [{ name: column.name, index }] : [],
  );
}

function readNumbers(columns: readonly NamedColumn[], record: FileRecord): Record<string, number | string> {
  const found: [string, number | string][] = [];
  for (const { name, index } of columns) {
    const written = record.values[index].trim();
    if (written !== '') found.push([name, numberOrText(written)]);
  }
  return Object.fromEntries(found);
}

function readAttributes(columns: readonly NamedColumn[], record: FileRecord): Record<string, string> {
  const found: [string, string][] = [];
  for (const { name, index } of columns)
    if (record.values[index] !== '') found.push([name, record.values[index]]);
  return Object.fromEntries(record.extra ? [...found, ...Object.entries(record.extra)] : found);
}

function clip(text: string): string {
  return text.length > 40 ? `${text.slice(0, 40)}…` : text;
}
