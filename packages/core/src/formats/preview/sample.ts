import type { Preview, ImportMapping, TableFormat } from '@pebble/contract';
import { CsvReader } from '../csv';
import { JsonDocumentReader, JsonLinesReader } from '../jsonLines';
import { ListReader } from '../listLines';
import type { FileRecord, RecordSink } from '../record';
import { UnreadableFile } from '../unreadable';

const ROWS_LOOKED_AT = 200;

/** The beginning of a table. */
export interface Sample {
  names: readonly string[];
  /** The first rows, to be looked at. */
  rows: (readonly string[])[];
  /** All rows of the text that was read. */
  all: (readonly string[])[];
  records: FileRecord[];
  problems: Preview['problems'];
}

export function emptySample(): Sample {
  return { names: [], rows: [], all: [], records: [], problems: [] };
}

export function sampleSink(sample: Sample): RecordSink {
  return {
    onRecord: (record) => {
      sample.all.push(record.values);
      if (sample.records.length >= ROWS_LOOKED_AT) return;
      sample.records.push(record);
      sample.rows.push(record.values);
    },
    onSkip: (row, field, reason) => void sample.problems.push({ row, field, reason }),
  };
}

/** The beginning of a table in a text. Throws UnreadableFile when there is none. */
export function readSample({ format, delimiter }: ImportMapping, text: string): Sample {
  const sample = emptySample();
  const sink = sampleSink(sample);
  if (format === 'jsonl' || format === 'json') return sampleJson(format, text, sample, sink);
  if (format === 'list') sample.names = ['value'];
  const reader =
    format === 'list'
      ? new ListReader(sink)
      : new CsvReader(delimiter, sink, (header) => (sample.names = header));
  reader.write(text);
  reader.end();
  return sample;
}

function sampleJson(format: TableFormat, text: string, sample: Sample, sink: RecordSink): Sample {
  const reader = format === 'jsonl' ? new JsonLinesReader([], sink) : new JsonDocumentReader([], sink);
  reader.write(text);
  try {
    reader.end();
  } catch {
    // The beginning of a document ends somewhere in its list.
  }
  const { records, problems } = sample;
  if (records.length === 0) {
    const first = problems[0];
    throw new UnreadableFile(
      format === 'jsonl' || first
        ? `No line is a JSON object. Line ${first?.row ?? 1}: ${first?.reason ?? 'blank'}`
        : 'The document has no list of objects that could be messages or ties.',
      first?.row ?? 1,
    );
  }
  const names = [...new Set(records.flatMap((record) => Object.keys(record.extra ?? {})))];
  const rows = records.map((record) =>
    // A name such as "constructor" is found on every object: only what the record itself has counts.
    names.map((name) => (record.extra && Object.hasOwn(record.extra, name) ? record.extra[name] : '')),
  );
  return {
    names,
    rows,
    all: rows,
    records: records.map(({ row }, i) => ({ row, values: rows[i], extra: null })),
    problems,
  };
}
