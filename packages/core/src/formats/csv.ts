import { parse } from 'csv-parse/sync';
import { counted } from '../words/sentence';
import { LineCutter, type Line } from './lines';
import type { RecordReader, RecordSink } from './record';

/** A quoted field may run over this many lines; beyond that its quotation mark was forgotten. */
const MOST_LINES = 400;
const BATCH = 500;

interface RawRecord {
  readonly row: number;
  readonly lines: readonly string[];
  readonly isQuoted: boolean;
}

/**
 * Reads delimited text (RFC 4180, any delimiter of one character), quoted fields with the csv-parse library. A header line comes first.
 * Records are cut where quotation marks are balanced, so a forgotten mark costs one line and not the rest of the file.
 * Rows with another number of fields than the header are skipped, unless the surplus is empty.
 */
export class CsvReader implements RecordReader {
  private readonly cutter = new LineCutter((line) => this.addLine(line));
  private open: Line[] = [];
  private openQuotes = 0;
  private batch: RawRecord[] = [];
  private header: readonly string[] | null = null;

  constructor(
    private readonly delimiter: string,
    private readonly sink: RecordSink,
    private readonly onHeader: (names: readonly string[]) => void = () => undefined,
  ) {}

  write(chunk: string): void {
    this.cutter.write(chunk);
  }

  end(): void {
    this.cutter.end();
    while (this.open.length > 0) this.giveUpFirstLine();
    this.flush();
  }

  private addLine(line: Line): void {
    if (line.text === null) {
      this.sink.onSkip(line.number, null, 'The line is longer than 8 million characters.');
      return;
    }
    if (this.open.length === 0 && line.text.trim() === '') return;
    this.open.push(line);
    this.openQuotes += countQuotes(line.text);
    if (this.openQuotes % 2 === 0) this.closeRecord();
    else if (this.open.length > MOST_LINES) this.giveUpFirstLine();
  }

  private closeRecord(): void {
    const [{ number: row }] = this.open;
    this.batch.push({ row, lines: this.open.map(({ text }) => text!), isQuoted: this.openQuotes > 0 });
    this.open = [];
    this.openQuotes = 0;
    if (this.header === null || this.batch.length >= BATCH) this.flush();
  }

  /** The quotation mark of the first open line is never closed: takes that line alone, and the others again. */
  private giveUpFirstLine(): void {
    const [first, ...others] = this.open;
    this.open = [];
    this.openQuotes = 0;
    this.flush();
    this.takeLoose(first.number, first.text!);
    for (const line of others) this.addLine(line);
  }

  private flush(): void {
    const batch = this.batch;
    this.batch = [];
    if (batch.length === 0) return;
    const quoted = batch.filter(({ isQuoted }) => isQuoted);
    const parsed =
      quoted.length === 0 ? [] : this.tryParse(quoted.flatMap(({ lines }) => lines).join('\n'), false);
    const rows = parsed?.length === quoted.length ? parsed.values() : null;
    for (const record of batch) {
      // Without a quotation mark a delimiter is nothing else; the library takes five times as long to say so.
      if (!record.isQuoted) this.take(record.row, record.lines[0].split(this.delimiter));
      else if (rows) this.take(record.row, rows.next().value!);
      else this.takeAlone(record);
    }
  }

  private takeAlone(record: RawRecord): void {
    const rows = this.tryParse(record.lines.join('\n'), false);
    if (rows && rows.length === 1) {
      this.take(record.row, rows[0]);
      return;
    }
    const [first, ...others] = record.lines;
    this.takeLoose(record.row, first);
    others.forEach((text, i) => {
      if (text.trim() !== '') this.takeLoose(record.row + 1 + i, text);
    });
  }

  /** A line with a quotation mark out of place: kept as it stands if its fields can still be told apart. */
  private takeLoose(row: number, text: string): void {
    const rows = this.tryParse(text, true);
    const fits = rows?.length === 1 && (this.header === null || rows[0].length === this.header.length);
    if (fits) this.take(row, rows[0]);
    else
      this.sink.onSkip(row, null, 'A quotation mark is opened and never closed, or stands inside a field.');
  }

  private tryParse(text: string, relaxed: boolean): string[][] | null {
    try {
      return parse(text, {
        delimiter: this.delimiter,
        relax_column_count: true,
        relax_quotes: relaxed,
        skip_empty_lines: true,
        record_delimiter: ['\n'],
        bom: false,
      });
    } catch {
      return null;
    }
  }

  private take(row: number, values: readonly string[]): void {
    if (this.header === null) {
      this.header = nameColumns(values);
      this.onHeader(this.header);
      return;
    }
    const wanted = this.header.length;
    if (values.length < wanted || values.slice(wanted).some((value) => value !== '')) {
      this.sink.onSkip(
        row,
        null,
        `The row has ${counted(values.length, 'field')}, the header has ${wanted}.`,
      );
      return;
    }
    this.sink.onRecord({
      row,
      values: values.length === wanted ? values : values.slice(0, wanted),
      extra: null,
    });
  }
}

function countQuotes(text: string): number {
  let count = 0;
  for (let at = text.indexOf('"'); at >= 0; at = text.indexOf('"', at + 1)) count++;
  return count;
}

/** Names of columns from a header row: trimmed, an empty one called "column 3", a repeated one numbered. */
function nameColumns(cells: readonly string[]): string[] {
  const used = new Set<string>();
  return cells.map((cell, i) => {
    const base = cell.replace(/^\ufeff/, '').trim() || `column ${i + 1}`;
    let name = base;
    for (let n = 2; used.has(name); n++) name = `${base} (${n})`;
    used.add(name);
    return name;
  });
}
