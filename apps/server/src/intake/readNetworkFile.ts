import { existsSync, readFileSync, statSync } from 'node:fs';
import type { NodeTable, ImportMapping, SkippedRow, StepParameters } from '@pebble/contract';
import { counted } from '@pebble/core';
import {
  BrokenNetwork,
  CsvReader,
  NetworkBuilder,
  readMatrix,
  readNetworkText,
  readWorkbook,
  sheetRecords,
  takeEdge,
  columnTypes,
  takeNode,
  takeTwoMode,
  TwoModeBuilder,
  type FileRecord,
  type FoundNetwork,
  type RecordSink,
} from '@pebble/core/files';
import { uploadPath } from '../files/places';
import { readTextFile } from '../files/textFile';
import { StepRefused } from '../errors/stepErrors';
import type { Progress } from '../threads/progress';
import { needRoles } from './needRoles';
import { readRecords } from './readRecords';
import type { SkippedRows } from './skippedRows';

/** Formats that stand in one text are held whole in memory; a longer one should come as a list of ties. */
const LARGEST_TEXT = 400 * 1024 ** 2;
const TABLES = ['csv', 'tsv', 'json', 'jsonl', 'xlsx'];

type Asked = Pick<StepParameters<'import-network'>, 'upload' | 'file' | 'reading' | 'nodes'>;

/** A network of a file, and how many rows were read for it. */
interface ReadNetwork {
  readonly found: FoundNetwork;
  readonly read: number;
}

/**
 * Reads a finished network; rows that cannot be read are handed to `skipped`.
 * Throws StepRefused, with the row, where nothing can be read.
 */
export function readNetworkFile(
  folder: string,
  asked: Asked,
  skipped: SkippedRows,
  progress: Progress,
): ReadNetwork {
  const { file, reading } = asked;
  const path = uploadPath(folder, asked.upload);
  if (!existsSync(path))
    throw new StepRefused('The uploaded file is no longer there. Please choose it again.', { file });
  try {
    if (reading.format === 'matrix') return { found: readWholeMatrix(path, reading), read: 0 };
    if (!TABLES.includes(reading.format)) return { found: readText(path, file, reading, progress), read: 0 };
    needRoles(file, reading);
    return reading.material === 'two-mode'
      ? readTwoMode(path, asked, skipped, progress)
      : readTies(folder, path, asked, skipped, progress);
  } catch (error) {
    if (!(error instanceof BrokenNetwork)) throw error;
    throw new StepRefused(error.message, { file, ...(error.row === null ? {} : { row: error.row }) });
  }
}

function readText(path: string, file: string, reading: ImportMapping, progress: Progress): FoundNetwork {
  if (statSync(path).size > LARGEST_TEXT)
    throw new StepRefused(
      'The file is larger than 400 MB. Save the network as a list of ties (CSV) instead.',
      { file },
    );
  progress(`Reading ${file}`, null);
  let text = '';
  readTextFile(path, reading.encoding, (part) => (text += part));
  return readNetworkText(text, reading);
}

function readTwoMode(
  path: string,
  { file, reading }: Asked,
  skipped: SkippedRows,
  progress: Progress,
): ReadNetwork {
  const builder = new TwoModeBuilder(reading);
  const read = takeRows(path, file, reading, takeTwoMode(reading, builder), skipped, progress);
  if (builder.size === 0) throw nothingRead(file, skipped);
  return { found: builder.finish(), read };
}

/** The nodes of a table of their own come first, so that they keep its order; then the ties. */
function readTies(
  folder: string,
  path: string,
  { file, reading, nodes }: Asked,
  skipped: SkippedRows,
  progress: Progress,
): ReadNetwork {
  const builder = new NetworkBuilder(true);
  const fromTable = nodes ? readNodeTable(folder, nodes, builder, skipped, progress) : 0;
  const told = builder.nodeCount;
  const read = takeRows(path, file, reading, takeEdge(reading, builder), skipped, progress);
  if (builder.edgeCount === 0 && (nodes !== null || builder.nodeCount === 0))
    throw nothingRead(file, skipped);
  const others = builder.nodeCount - told;
  if (nodes && others > 0)
    builder.note(
      `${counted(others, 'end')} of ties ${others === 1 ? 'is' : 'are'} not in the table of nodes and became ${others === 1 ? 'a node' : 'nodes'} without details.`,
    );
  return { found: builder.finish(), read: read + fromTable };
}

function readNodeTable(
  folder: string,
  { upload, file, reading }: NodeTable,
  builder: NetworkBuilder,
  skipped: SkippedRows,
  progress: Progress,
): number {
  needRoles(file, reading);
  for (const [name, type] of columnTypes(reading)) builder.say('node', name, type);
  const take = takeNode(reading, ({ key, label, attributes }) =>
    builder.describeNode(key, label, attributes),
  );
  const named = (record: FileRecord): SkippedRow | null => {
    const row = take(record);
    return row && { ...row, file: reading.sheet === null ? file : `${file}, ${reading.sheet}` };
  };
  return takeRows(uploadPath(folder, upload), file, reading, named, skipped, progress);
}

/** Hands on every row of a table; gives back how many there were. */
function takeRows(
  path: string,
  file: string,
  reading: ImportMapping,
  take: (record: FileRecord) => SkippedRow | null,
  skipped: SkippedRows,
  progress: Progress,
): number {
  let read = 0;
  let last = 0;
  readRecords(
    path,
    file,
    reading,
    {
      onRecord(record) {
        read++;
        const reason = take(record);
        if (reason) skipped.add(reason);
      },
      onSkip(row, field, reason) {
        read++;
        skipped.add({ row, field, reason });
      },
    },
    (share) => {
      if (share - last < 0.01) return;
      last = share;
      progress(`Reading ${file}`, share * 0.85);
    },
  );
  return read;
}

function nothingRead(file: string, skipped: SkippedRows): StepRefused {
  return new StepRefused(`No tie could be read from ${file}. ${skipped.firstReason()}`, { file });
}

function readWholeMatrix(path: string, reading: ImportMapping): FoundNetwork {
  let names: readonly string[] = [];
  const rows: (readonly string[])[] = [];
  const sink: RecordSink = {
    onRecord: ({ values }) => void rows.push(values),
    onSkip(row, _field, reason) {
      throw new BrokenNetwork(reason, row);
    },
  };
  const onHeader = (header: readonly string[]): void => void (names = header);
  if (reading.sheet !== null) {
    const sheet = readWorkbook(readFileSync(path)).find(({ name }) => name === reading.sheet);
    if (sheet) sheetRecords(sheet, sink, onHeader).end();
  } else {
    const reader = new CsvReader(reading.delimiter, sink, onHeader);
    readTextFile(path, reading.encoding, (text) => reader.write(text));
    reader.end();
  }
  return readMatrix(names, rows);
}
