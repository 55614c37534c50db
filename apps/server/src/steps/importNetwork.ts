import { existsSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { defaultMap, type ColumnInfo, type StepParameters } from '@pebble/contract';
import { formatCount } from '@pebble/core';
import {
  BrokenNetwork,
  CsvReader,
  missingRoles,
  NetworkBuilder,
  readMatrix,
  readNetworkText,
  readWorkbook,
  sheetRecords,
  takeEdge,
  takeTwoMode,
  TwoModeBuilder,
  type FoundNetwork,
  type RecordSink,
} from '@pebble/core/files';
import { saveMap } from '../db/networks';
import { skippedPath, uploadPath } from '../files/places';
import { writeTable } from '../files/tables';
import { readTextFile } from '../files/textFile';
import { readRecords } from '../intake/readRecords';
import { SkippedRows } from '../intake/skippedRows';
import { StepRefused, type Progress, type StepDefinition } from './step';

/** Formats that stand in one text are held whole in memory; a longer one should come as a list of ties. */
const LARGEST_TEXT = 400 * 1024 ** 2;

interface NetworkReport extends Record<string, unknown> {
  readonly network: string;
  readonly file: string;
  readonly nodes: number;
  readonly edges: number;
  readonly directed: boolean;
  readonly read: number;
  readonly skipped: number;
  readonly skippedByReason: { reason: string; rows: number }[];
  readonly notes: readonly string[];
}

type Parameters = StepParameters<'import-network'>;

/** A finished network of a file becomes a network of the study; there are no messages behind it. */
export const importNetwork: StepDefinition<'import-network', NetworkReport> = {
  kind: 'import-network',
  async run({ store, study, step, now, newId }, parameters, progress) {
    const { upload, file, name } = parameters;
    const path = uploadPath(store.folder, upload);
    if (!existsSync(path))
      throw new StepRefused('The uploaded file is no longer there. Please choose it again.', { file });
    const skipped = new SkippedRows();
    const counts = { read: 0 };
    const found = await readSafely(file, () => read(path, parameters, skipped, counts, progress));
    progress('Storing', 0.9);
    const network = newId();
    const { id, handle, name: label, ...own } = found.nodes;
    writeTable(store.folder, network, 'nodes', { id, handle, name: label, ...own });
    writeTable(store.folder, network, 'edges', found.edges);
    const edges = found.edges['source'].length;
    await store.query
      .insertInto('network')
      .values({
        id: network,
        study_id: study,
        step_id: step,
        name,
        weave: 'null',
        directed: found.directed ? 1 : 0,
        own_columns: JSON.stringify(ownColumns(own, file)),
        sentence: `The ties of ${file}, as they stand in the file; ${found.directed ? 'directed' : 'undirected'}.`,
        nodes: found.nodeCount,
        edges,
        messages: 0,
        state: 'woven',
        measures: '{}',
        created_at: now,
        deleted_at: null,
      })
      .execute();
    const isTwoMode = parameters.reading.material === 'two-mode';
    if (!found.directed || isTwoMode)
      await saveMap(store, network, {
        description: {
          ...defaultMap,
          size: { ...defaultMap.size, column: 'degree' },
          ...(isTwoMode
            ? { colour: { column: 'mode' }, names: { ...defaultMap.names, column: 'degree' } }
            : {}),
        },
      });
    await store.query.updateTable('study').set({ changed_at: now }).where('id', '=', study).execute();
    if (skipped.total > 0) writeFileSync(skippedPath(store.folder, step), `\ufeff${skipped.csv}`);
    rmSync(path, { force: true });
    return {
      network,
      file,
      nodes: found.nodeCount,
      edges,
      directed: found.directed,
      read: counts.read,
      skipped: skipped.total,
      skippedByReason: skipped.byReason(),
      notes: [...found.notes, ...skipped.notes()],
    };
  },
  describe({ file }, report) {
    if (!report) return `A network was to be taken from ${file}.`;
    const direction = report.directed ? 'directed' : 'undirected';
    const parts = [
      `A network of ${formatCount(report.nodes)} nodes and ${formatCount(report.edges)} ${direction} ties was taken from ${file}`,
    ];
    if (report.skipped > 0)
      parts.push(`${formatCount(report.skipped)} rows could not be read and were skipped`);
    return `${parts.join('; ')}.`;
  },
  followUps: ({ network }) => [{ kind: 'measure-network', parameters: { network, settings: {} } }],
};

async function readSafely(file: string, read: () => Promise<FoundNetwork>): Promise<FoundNetwork> {
  try {
    return await read();
  } catch (error) {
    if (!(error instanceof BrokenNetwork)) throw error;
    throw new StepRefused(error.message, { file, ...(error.row === null ? {} : { row: error.row }) });
  }
}

async function read(
  path: string,
  { file, reading }: Parameters,
  skipped: SkippedRows,
  counts: { read: number },
  progress: Progress,
): Promise<FoundNetwork> {
  if (reading.format === 'matrix') return readWholeMatrix(path, reading);
  if (['csv', 'tsv', 'json', 'jsonl', 'xlsx'].includes(reading.format)) {
    const missing = missingRoles(reading.columns, reading.material);
    if (missing.length > 0)
      throw new StepRefused(`No column was named as ${missing.join(' and ')}.`, { file });
    return readRows(path, file, reading, skipped, counts, progress);
  }
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

/** Ties and two-mode data are read row by row; the network is built as they come. */
async function readRows(
  path: string,
  file: string,
  reading: Parameters['reading'],
  skipped: SkippedRows,
  counts: { read: number },
  progress: Progress,
): Promise<FoundNetwork> {
  const isTwoMode = reading.material === 'two-mode';
  const ties = new NetworkBuilder(true);
  const twoMode = new TwoModeBuilder(reading);
  const take = isTwoMode ? takeTwoMode(reading, twoMode) : takeEdge(reading, ties);
  let last = 0;
  await readRecords(
    path,
    file,
    reading,
    {
      onRecord(record) {
        counts.read++;
        const reason = take(record);
        if (reason) skipped.add(reason);
      },
      onSkip(row, field, reason) {
        counts.read++;
        skipped.add({ row, field, reason });
      },
    },
    (share) => {
      if (share - last < 0.01) return;
      last = share;
      progress(`Reading ${file}`, share * 0.85);
    },
  );
  if ((isTwoMode ? twoMode.size : ties.nodeCount) === 0)
    throw new StepRefused(`No tie could be read from ${file}. ${skipped.firstReason()}`, { file });
  return isTwoMode ? twoMode.finish() : ties.finish();
}

async function readWholeMatrix(path: string, reading: Parameters['reading']): Promise<FoundNetwork> {
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

/** Columns that the file brought: numbers can size, colour and rank the map. */
function ownColumns(own: FoundNetwork['nodes'], file: string): ColumnInfo[] {
  return Object.entries(own).map(([name, values]) => ({
    name,
    title: name,
    type: ArrayBuffer.isView(values) ? 'number' : isCategory(values) ? 'category' : 'text',
    how: `As it stands in ${file}.`,
  }));
}

/** Whether texts are those of a category: few different ones, each for many nodes. */
function isCategory(values: readonly string[]): boolean {
  return new Set(values).size <= Math.min(40, values.length / 3);
}
