import type { FileFormat, Preview, Reading, TextEncoding } from '@pebble/contract';
import { guessColumns, missingRoles } from './columns';
import { CsvReader } from './csv';
import { guessDateForm } from './dates';
import { guessEncoding } from './encoding';
import { JsonLinesReader } from './jsonLines';
import type { FileRecord, RecordReader, RecordSink } from './record';
import { takePost } from './posts';

const ROWS_SHOWN = 12;
const ROWS_LOOKED_AT = 200;

/** A file that cannot be read at all; the message says why and what to do. */
export class UnreadableFile extends Error {
  constructor(
    message: string,
    readonly row: number | null = null,
  ) {
    super(message);
  }
}

/**
 * A first look at a file of posts.
 * @param head its first bytes (some 256 KiB are enough)
 * @param size bytes of the whole file
 * @param chosen what the researcher corrected; the rest is detected
 * Throws UnreadableFile when it is empty or no table of posts.
 */
export function previewFile(
  file: string,
  head: Uint8Array,
  size: number,
  chosen?: Partial<Reading>,
): Preview {
  if (size === 0) throw new UnreadableFile('The file is empty.');
  refuseForeign(head);
  const complete = head.length >= size;
  const encodingGuess = guessEncoding(head, complete);
  const encoding = chosen?.encoding ?? encodingGuess.encoding;
  const text = wholeLines(new TextDecoder(encoding).decode(head, { stream: !complete }), complete);
  if (text.trim() === '') throw new UnreadableFile('The file holds only blank lines.');
  const formatGuess = guessFormat(text, file);
  const format = chosen?.format ?? formatGuess.format;
  const delimiter = chosen?.delimiter ?? (format === 'tsv' ? '\t' : formatGuess.delimiter);
  const sample = readSample(format, delimiter, text);
  const columns = chosen?.columns?.length ? chosen.columns : guessColumns(sample.names, sample.rows);
  const timeColumn = columns.findIndex((column) => column.role === 'time');
  const dates = timeColumn < 0 ? null : guessDateForm(sample.rows.map((row) => row[timeColumn] ?? ''));
  const reading: Reading = {
    format,
    encoding,
    delimiter,
    dateForm: chosen?.dateForm ?? dates?.form ?? 'iso',
    zoneOffsetMinutes: chosen?.zoneOffsetMinutes ?? 0,
    columns,
  };
  const reasons = [`${encodingGuess.reason}.`, formatGuess.reason];
  if (dates?.ambiguous)
    reasons.push('Dates could be day-month or month-day; day-month was taken. Please check.');
  return {
    file,
    bytes: size,
    reading,
    reasons,
    rows: sample.rows.slice(0, ROWS_SHOWN).map((row) => [...row]),
    missing: missingRoles(columns),
    problems: [...sample.problems, ...postProblems(reading, sample.records)].slice(0, 50),
  };
}

/** A reader of the records of a file, by how it is to be read. */
export function recordReader(reading: Reading, sink: RecordSink): RecordReader {
  return reading.format === 'jsonl'
    ? new JsonLinesReader(
        reading.columns.map((column) => column.name),
        sink,
      )
    : new CsvReader(reading.delimiter, sink);
}

/** A decoder for the encodings that are understood; bytes that form no character become U+FFFD. */
export function decoderFor(encoding: TextEncoding): TextDecoder {
  return new TextDecoder(encoding);
}

function refuseForeign(head: Uint8Array): void {
  const magic = String.fromCharCode(...head.slice(0, 8));
  if (magic.startsWith('PK\x03\x04')) {
    throw new UnreadableFile(
      'This is a zip archive or a spreadsheet workbook, not text. Save it as CSV and try again.',
    );
  }
  if (magic.startsWith('%PDF')) throw new UnreadableFile('This is a PDF document, not a table of posts.');
  if (magic.startsWith('\x89PNG') || magic.startsWith('\xff\xd8\xff')) {
    throw new UnreadableFile('This is a picture, not a table of posts.');
  }
  if (magic.startsWith('\x1f\x8b'))
    throw new UnreadableFile('This is a gzip archive. Unpack it and try again.');
  const hasOrder = (head[0] === 0xff && head[1] === 0xfe) || (head[0] === 0xfe && head[1] === 0xff);
  let strange = 0;
  const length = Math.min(head.length, 4096);
  for (let i = 0; i < length; i++) if (head[i] < 9 && head[i] !== 0) strange++;
  if (!hasOrder && strange > length / 20)
    throw new UnreadableFile('These bytes are not text; nothing was taken from the file.');
}

function wholeLines(text: string, complete: boolean): string {
  const clean = text.replace(/^\ufeff/, '');
  const end = clean.lastIndexOf('\n');
  return complete || end < 0 ? clean : clean.slice(0, end + 1);
}

interface FormatGuess {
  readonly format: FileFormat;
  readonly delimiter: string;
  readonly reason: string;
}

function guessFormat(text: string, file: string): FormatGuess {
  const first = text.trimStart();
  if (first.startsWith('{')) {
    return { format: 'jsonl', delimiter: '', reason: 'JSON Lines, since the first line is a JSON object.' };
  }
  if (first.startsWith('[') || first.startsWith('<')) {
    const what = first.startsWith('[') ? 'a single JSON list' : 'XML or HTML';
    throw new UnreadableFile(
      `This looks like ${what}. Posts are read from CSV, TSV or JSON Lines (one object a line).`,
      1,
    );
  }
  const lines = text
    .split(/\r?\n/)
    .slice(0, 30)
    .filter((line) => line.trim() !== '');
  const delimiter = [',', ';', '\t', '|'].reduce((a, b) => (evenness(lines, b) > evenness(lines, a) ? b : a));
  if (evenness(lines, delimiter) === 0) {
    throw new UnreadableFile(
      `No columns were found in ${file}: its first line has no comma, semicolon, tab or bar between names of columns.`,
      1,
    );
  }
  const name = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' }[delimiter];
  return {
    format: delimiter === '\t' ? 'tsv' : 'csv',
    delimiter,
    reason: `A table with ${name} between its columns.`,
  };
}

/** How often a delimiter stands outside quotes in the first line, favoured when other lines have as many. */
function evenness(lines: readonly string[], delimiter: string): number {
  const counts = lines.map((line) => line.replace(/"[^"]*"/g, '').split(delimiter).length - 1);
  const first = counts[0] ?? 0;
  return first === 0 ? 0 : first * (counts.filter((count) => count === first).length / counts.length + 0.1);
}

interface Sample {
  names: readonly string[];
  rows: (readonly string[])[];
  records: FileRecord[];
  problems: Preview['problems'];
}

function readSample(format: FileFormat, delimiter: string, text: string): Sample {
  const records: FileRecord[] = [];
  const problems: Preview['problems'] = [];
  const sink: RecordSink = {
    onRecord: (record) => void (records.length < ROWS_LOOKED_AT && records.push(record)),
    onSkip: (row, field, reason) => void problems.push({ row, field, reason }),
  };
  if (format === 'jsonl') return sampleJson(text, records, problems, sink);
  let names: readonly string[] = [];
  const reader = new CsvReader(delimiter, sink, (header) => (names = header));
  reader.write(text);
  reader.end();
  return { names, rows: records.map((record) => record.values), records, problems };
}

function sampleJson(
  text: string,
  records: FileRecord[],
  problems: Preview['problems'],
  sink: RecordSink,
): Sample {
  const reader = new JsonLinesReader([], sink);
  reader.write(text);
  reader.end();
  if (records.length === 0) {
    const first = problems[0];
    throw new UnreadableFile(
      `No line is a JSON object. Line ${first?.row ?? 1}: ${first?.reason ?? 'blank'}`,
      first?.row ?? 1,
    );
  }
  const names = [...new Set(records.flatMap((record) => Object.keys(record.extra ?? {})))];
  const rows = records.map((record) => names.map((name) => record.extra?.[name] ?? ''));
  const filled = records.map((record, i) => ({ row: record.row, values: rows[i], extra: null }));
  return { names, rows, records: filled, problems };
}

function postProblems(reading: Reading, records: readonly FileRecord[]): Preview['problems'] {
  if (missingRoles(reading.columns).length > 0) return [];
  const take = takePost(reading);
  return records.flatMap((record) => {
    const taken = take(record);
    return 'reason' in taken ? [taken] : [];
  });
}
