import type { Column, IncomingMessage, Material, Preview, Reading, TableFormat } from '@pebble/contract';
import { guessColumns, guessMaterial, missingRoles } from './columns';
import { CsvReader } from './csv';
import { guessDateForm } from './dates';
import { guessEncoding } from './encoding';
import { JsonDocumentReader, JsonLinesReader } from './jsonLines';
import { messageReader } from './messageReader';
import { BrokenNetwork, NetworkBuilder, type FoundNetwork } from './networks/foundNetwork';
import { takeEdge } from './networks/edgeTable';
import { isSquareMatrix, readMatrix } from './networks/matrix';
import { readNetworkText } from './networks/readNetwork';
import { takePost } from './posts';
import type { FileRecord, RecordSink } from './record';
import { guessFormat, isWorkbook, refuseForeign, type FormatGuess } from './sniff';
import { UnreadableFile } from './unreadable';
import { readWorkbook, sheetRecords } from './workbook';

const ROWS_SHOWN = 12;
const ROWS_LOOKED_AT = 200;

/** A file to look at. */
export interface FileHead {
  readonly name: string;
  /** Its first bytes (some 256 KiB are enough). */
  readonly head: Uint8Array;
  /** Bytes of the whole file. */
  readonly size: number;
  /** All bytes, for formats that can only be looked at whole; throws UnreadableFile when they are too many. */
  whole(): Uint8Array;
}

/**
 * A first look at a file.
 * @param chosen what the researcher corrected; the rest is detected
 * Throws UnreadableFile when nothing can be read from it.
 */
export async function previewFile(file: FileHead, chosen?: Partial<Reading>): Promise<Preview> {
  if (file.size === 0) throw new UnreadableFile('The file is empty.');
  if (isWorkbook(file.head)) return previewWorkbook(file, chosen);
  refuseForeign(file.head);
  const complete = file.head.length >= file.size;
  const encodingGuess = guessEncoding(file.head, complete);
  const encoding = chosen?.encoding ?? encodingGuess.encoding;
  const text = wholeLines(new TextDecoder(encoding).decode(file.head, { stream: !complete }), complete);
  if (text.trim() === '') throw new UnreadableFile('The file holds only blank lines.');
  const guess = guessFormat(text, file.name);
  const format = chosen?.format ?? guess.format;
  const base: Reading = {
    material: chosen?.material ?? guess.material,
    format,
    sheet: null,
    encoding,
    delimiter: chosen?.delimiter ?? (format === 'tsv' ? '\t' : guess.delimiter),
    dateForm: chosen?.dateForm ?? 'iso',
    zoneOffsetMinutes: chosen?.zoneOffsetMinutes ?? 0,
    columns: [],
  };
  const reasons = [`${encodingGuess.reason}.`, guess.reason];
  switch (format) {
    case 'activities':
      return previewMessages(file, text, { ...base, delimiter: isOneALine(guess) ? '\n' : '' }, reasons);
    case 'mbox':
    case 'eml': {
      const bytes = format === 'eml' ? file.whole() : file.head;
      return previewMessages(file, binary(bytes), base, [guess.reason]);
    }
    case 'graphml':
    case 'gml':
    case 'jgf':
    case 'dot':
    case 'adjacency': {
      const whole = new TextDecoder(encoding).decode(file.whole());
      return previewNetwork(
        file,
        readSafely(() => readNetworkText(whole, base)),
        base,
        reasons,
      );
    }
    case 'matrix':
    case 'xlsx':
    default:
      return previewTable(file, readSample(base, text), base, reasons, complete, chosen);
  }
}

/** Everything a preview says beside its reading. */
type Findings = Omit<Preview, 'file' | 'bytes' | 'reading' | 'reasons'>;

function previewOf(
  file: FileHead,
  reading: Reading,
  reasons: string[],
  findings: Partial<Findings>,
): Preview {
  return {
    file: file.name,
    bytes: file.size,
    reading,
    reasons,
    fixed: false,
    materials: [reading.material],
    sheets: [],
    network: null,
    rows: [],
    missing: [],
    problems: [],
    saved: [],
    ...findings,
  };
}

async function previewWorkbook(file: FileHead, chosen?: Partial<Reading>): Promise<Preview> {
  const sheets = await readWorkbook(file.whole());
  const filled = sheets.filter(({ rows }) => rows.length > 1);
  if (filled.length === 0) throw new UnreadableFile('The workbook has no sheet with a heading and rows.');
  // A note beside the table is common: the sheet with most cells is taken.
  const cells = ({ rows }: (typeof filled)[number]): number => rows.reduce((sum, row) => sum + row.length, 0);
  const largest = filled.reduce((a, b) => (cells(b) > cells(a) ? b : a));
  const sheet = sheets.find(({ name }) => name === chosen?.sheet) ?? largest;
  const sample = emptySample();
  sheetRecords(sheet, sampleSink(sample), (names) => (sample.names = names)).end();
  if (sample.names.length === 0) throw new UnreadableFile(`The sheet “${sheet.name}” is empty.`);
  const base: Reading = {
    material: 'messages',
    format: 'xlsx',
    sheet: sheet.name,
    encoding: 'utf-8',
    delimiter: '',
    dateForm: 'iso',
    zoneOffsetMinutes: chosen?.zoneOffsetMinutes ?? 0,
    columns: [],
  };
  const reasons = [
    'A workbook (XLSX).',
    sheets.length > 1
      ? `It has ${sheets.length} sheets; “${sheet.name}” is shown.`
      : `Its sheet is “${sheet.name}”.`,
  ];
  const preview = previewTable(file, sample, base, reasons, true, chosen);
  return { ...preview, sheets: sheets.map(({ name }) => name) };
}

function previewTable(
  file: FileHead,
  sample: Sample,
  base: Reading,
  reasons: string[],
  complete: boolean,
  chosen?: Partial<Reading>,
): Preview {
  const isMatrix = chosen?.material !== 'messages' && isSquareMatrix(sample.names, sample.rows);
  const material: Material =
    chosen?.material ?? (isMatrix ? 'network' : guessMaterial(sample.names, sample.rows));
  if (isMatrix && base.format !== 'json' && base.format !== 'jsonl') {
    if (!complete)
      throw new UnreadableFile('The matrix is too large for one file. Use a list of ties instead.');
    const whole = readSafely(() => readMatrix(sample.names, sample.all));
    return previewNetwork(
      file,
      whole,
      { ...base, material: 'network', format: 'matrix', sheet: base.sheet },
      [...reasons, 'Its rows and columns have the same names, so it is an adjacency matrix.'],
      ['network', 'messages'],
    );
  }
  const columns = chosen?.columns?.length
    ? chosen.columns
    : guessColumns(sample.names, sample.rows, material);
  const timeColumn = columns.findIndex((column) => column.role === 'time');
  const dates = timeColumn < 0 ? null : guessDateForm(sample.rows.map((row) => row[timeColumn] ?? ''));
  const reading: Reading = { ...base, material, dateForm: chosen?.dateForm ?? dates?.form ?? 'iso', columns };
  const missing = missingRoles(columns, material);
  if (material === 'network') reasons = [...reasons, 'Its columns name two ends, so its rows are ties.'];
  if (dates?.ambiguous)
    reasons = [...reasons, 'Dates could be day-month or month-day; day-month was taken. Please check.'];
  const problems =
    missing.length > 0
      ? []
      : material === 'network'
        ? tieProblems(reading, sample.records)
        : postProblems(reading, sample.records);
  return previewOf(file, reading, reasons, {
    materials: ['messages', 'network'],
    rows: sample.rows.slice(0, ROWS_SHOWN).map((row) => [...row]),
    missing,
    problems: [...sample.problems, ...problems].slice(0, 50),
  });
}

/** The columns in which messages of a format with a meaning of its own are shown. */
const MESSAGE_COLUMNS: readonly Column[] = [
  { name: 'author', role: 'author' },
  { name: 'to', role: 'to' },
  { name: 'time (UTC)', role: 'time' },
  { name: 'subject', role: 'subject' },
  { name: 'text', role: 'text' },
  { name: 'kind', role: 'kind' },
  { name: 'answers', role: 'parent' },
];

async function previewMessages(
  file: FileHead,
  text: string,
  base: Reading,
  reasons: string[],
): Promise<Preview> {
  const rows: string[][] = [];
  const problems: Preview['problems'] = [];
  const reader = messageReader(base, file.name, {
    message: (message) => void (rows.length < ROWS_SHOWN && rows.push(messageCells(message))),
    skip: (row) => void problems.push(row),
  });
  await reader.write(text);
  if (file.head.length >= file.size) {
    try {
      await reader.end();
    } catch (error) {
      throw new UnreadableFile(error instanceof Error ? error.message : String(error));
    }
  } else if (rows.length === 0) await reader.end();
  if (rows.length === 0) {
    const first = problems[0];
    throw new UnreadableFile(
      first
        ? `No message was found. Line ${first.row}: ${first.reason}`
        : 'No message was found in the file.',
      first?.row ?? null,
    );
  }
  return previewOf(file, { ...base, columns: [...MESSAGE_COLUMNS] }, reasons, {
    fixed: true,
    rows,
    problems: problems.slice(0, 50),
  });
}

function messageCells({
  authorHandle,
  addressed,
  time,
  kind,
  parentKey,
  subject,
  text,
}: IncomingMessage): string[] {
  return [
    authorHandle,
    addressed.map(({ handle }) => handle).join(' '),
    time === null ? '' : new Date(time).toISOString().slice(0, 16).replace('T', ' '),
    subject ?? '',
    text,
    kind,
    parentKey ?? '',
  ];
}

function previewNetwork(
  file: FileHead,
  found: FoundNetwork,
  base: Reading,
  reasons: string[],
  materials: Material[] = ['network'],
): Preview {
  const { nodes, edges } = found;
  const handles = nodes['handle'] as readonly string[];
  const names = nodes['name'] as readonly string[];
  const label = (v: number): string => names[v] || handles[v];
  const edgeColumns = Object.keys(edges).filter((name) => !['source', 'target', 'weight'].includes(name));
  const cell = (name: string, e: number): string => String(edges[name][e]).replace(/^NaN$/, '');
  const shown = Math.min(ROWS_SHOWN, edges['source'].length);
  return previewOf(
    file,
    {
      ...base,
      columns: [
        { name: 'source', role: 'source' },
        { name: 'target', role: 'target' },
        { name: 'weight', role: 'weight' },
        ...edgeColumns.map((name): Column => ({ name, role: 'attribute' })),
      ],
    },
    [...reasons, ...found.notes],
    {
      fixed: true,
      materials,
      network: {
        nodes: found.nodeCount,
        edges: edges['source'].length,
        directed: found.directed,
        weighted: found.weighted,
        nodeColumns: Object.keys(nodes).filter((name) => !['id', 'handle', 'name'].includes(name)),
        edgeColumns,
      },
      rows: Array.from({ length: shown }, (_, e) => [
        label(edges['source'][e] as number),
        label(edges['target'][e] as number),
        cell('weight', e),
        ...edgeColumns.map((name) => cell(name, e)),
      ]),
    },
  );
}

function readSafely(read: () => FoundNetwork): FoundNetwork {
  try {
    return read();
  } catch (error) {
    if (error instanceof BrokenNetwork) throw new UnreadableFile(error.message, error.row);
    throw error;
  }
}

function isOneALine({ reason }: FormatGuess): boolean {
  return reason.endsWith('one a line.');
}

function binary(bytes: Uint8Array): string {
  let text = '';
  for (let at = 0; at < bytes.length; at += 8192)
    text += String.fromCharCode(...bytes.subarray(at, at + 8192));
  return text;
}

function wholeLines(text: string, complete: boolean): string {
  const clean = text.replace(/^\ufeff/, '');
  const end = clean.lastIndexOf('\n');
  return complete || end < 0 ? clean : clean.slice(0, end + 1);
}

interface Sample {
  names: readonly string[];
  /** The first rows, to be looked at. */
  rows: (readonly string[])[];
  /** All rows of the text that was read. */
  all: (readonly string[])[];
  records: FileRecord[];
  problems: Preview['problems'];
}

function emptySample(): Sample {
  return { names: [], rows: [], all: [], records: [], problems: [] };
}

function sampleSink(sample: Sample): RecordSink {
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

function readSample({ format, delimiter }: Reading, text: string): Sample {
  const sample = emptySample();
  const sink = sampleSink(sample);
  if (format === 'jsonl' || format === 'json') return sampleJson(format, text, sample, sink);
  const reader = new CsvReader(delimiter, sink, (header) => (sample.names = header));
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
  const rows = records.map((record) => names.map((name) => record.extra?.[name] ?? ''));
  return {
    names,
    rows,
    all: rows,
    records: records.map(({ row }, i) => ({ row, values: rows[i], extra: null })),
    problems,
  };
}

function postProblems(reading: Reading, records: readonly FileRecord[]): Preview['problems'] {
  const take = takePost(reading);
  return records.flatMap((record) => {
    const taken = take(record);
    return 'reason' in taken ? [taken] : [];
  });
}

function tieProblems(reading: Reading, records: readonly FileRecord[]): Preview['problems'] {
  const take = takeEdge(reading, new NetworkBuilder(true));
  return records.flatMap((record) => take(record) ?? []);
}
