import {
  Material,
  TwoModeReading,
  type Column,
  type IncomingMessage,
  type Preview,
  type Reading,
} from '@pebble/contract';
import { guessColumns, guessMaterial, isAttendance, missingRoles } from './columns';
import { guessDateForm } from './dates';
import { guessEncoding } from './encoding';
import type { FoundNetwork } from './networks/foundNetwork';
import { isSquareMatrix, readMatrix } from './networks/matrix';
import { readNetworkText } from './networks/readNetwork';
import { followedByFileName } from './follows';
import { guessFormat, isWorkbook, refuseForeign, type FormatGuess } from './sniff';
import { emptySample, readSample, sampleSink, type Sample } from './sample';
import { sourceReader } from './sourceReader';
import { Tally } from './tally';
import { readSafely, sketchOf, tryRecords } from './trial';
import { UnreadableFile } from './unreadable';
import { readWorkbook, sheetRecords } from './workbook';

const ROWS_SHOWN = 12;
/** Rows of a workbook's sheets that are looked at. */
const SHEET_ROWS = 2000;

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
    ...chosenMeaning(file, chosen),
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

/** What a reading says beside the columns, where it was chosen. */
function chosenMeaning(file: FileHead, chosen?: Partial<Reading>): Pick<Reading, 'followed' | 'twoMode'> {
  return {
    followed: chosen?.followed ?? followedByFileName(file.name),
    twoMode: TwoModeReading.parse(chosen?.twoMode ?? {}),
  };
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
    lines: [],
    outcome: null,
    missing: [],
    problems: [],
    saved: [],
    ...findings,
  };
}

function previewWorkbook(file: FileHead, chosen?: Partial<Reading>): Preview {
  const sheets = readWorkbook(file.whole(), SHEET_ROWS);
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
    ...chosenMeaning(file, chosen),
  };
  const reasons = [
    'A workbook (XLSX).',
    sheets.length > 1
      ? `It has ${sheets.length} sheets; “${sheet.name}” is shown.`
      : `Its sheet is “${sheet.name}”.`,
  ];
  const preview = previewTable(file, sample, base, reasons, sheet.isWhole, chosen);
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
  const isMatrix = (chosen?.material ?? 'network') === 'network' && isSquareMatrix(sample.names, sample.rows);
  const material: Material =
    chosen?.material ??
    (isMatrix
      ? 'network'
      : base.format === 'list'
        ? 'groups'
        : guessMaterial(sample.names, sample.rows, file.name));
  if (isMatrix && material === 'network' && base.format !== 'json' && base.format !== 'jsonl') {
    if (!complete)
      throw new UnreadableFile('The matrix is too large for one file. Use a list of ties instead.');
    const whole = readSafely(() => readMatrix(sample.names, sample.all));
    return previewNetwork(
      file,
      whole,
      { ...base, material: 'network', format: 'matrix', sheet: base.sheet },
      [...reasons, 'Its rows and columns have the same names, so it is an adjacency matrix.'],
      [...Material.options],
    );
  }
  const columns = chosen?.columns?.length
    ? chosen.columns
    : guessColumns(sample.names, sample.rows, material);
  const timeColumn = columns.findIndex((column) => column.role === 'time');
  const dates = timeColumn < 0 ? null : guessDateForm(sample.rows.map((row) => row[timeColumn] ?? ''));
  const reading: Reading = {
    ...base,
    material,
    dateForm: chosen?.dateForm ?? dates?.form ?? 'iso',
    columns,
    twoMode: chosen?.twoMode ? base.twoMode : { ...base.twoMode, ...guessTwoMode(columns, sample) },
  };
  const missing = missingRoles(columns, material);
  if (MATERIAL_REASON[material]) reasons = [...reasons, MATERIAL_REASON[material]];
  if (dates?.ambiguous)
    reasons = [...reasons, 'Dates could be day-month or month-day; day-month was taken. Please check.'];
  const found = missing.length > 0 ? { problems: [] } : tryRecords(reading, file.name, sample, complete);
  return previewOf(file, reading, reasons, {
    fixed: base.format === 'list',
    materials: base.format === 'list' ? ['groups'] : [...Material.options],
    rows: sample.rows.slice(0, ROWS_SHOWN).map((row) => [...row]),
    lines: sample.records.slice(0, ROWS_SHOWN).map(({ row }) => row),
    missing,
    ...found,
    problems: [...sample.problems, ...found.problems].slice(0, 50),
  });
}

/** Why a table was taken for what it is. */
const MATERIAL_REASON: Partial<Record<Material, string>> = {
  network: 'Its columns name two ends, so its rows are ties.',
  items: 'Its columns name titles and channels, so its rows are items such as videos or pages.',
  follows: 'Its columns name followers, so its rows say who follows whom.',
  accounts: 'Its columns tell of accounts and hold no messages.',
  'two-mode': 'Its rows and columns are two different sorts of things, so it is two-mode data.',
  groups: 'It gives each node a group.',
};

/** Which of the ways of writing two-mode data a table has, and what stands between several values of a cell. */
function guessTwoMode(columns: readonly Column[], { names, rows }: Sample): Partial<Reading['twoMode']> {
  if (columns.some(({ role }) => role === 'thing') || isAttendance(names, rows)) return { layout: 'matrix' };
  const target = columns.findIndex(({ role }) => role === 'target');
  const share = (mark: string): number =>
    rows.filter((row) => (row[target] ?? '').includes(mark)).length / Math.max(1, rows.length);
  const between = [';', '|', ','].find((mark) => share(mark) > 0.1);
  return between ? { layout: 'cells', between } : { layout: 'pairs' };
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
  const tally = new Tally();
  const show = (cells: string[]): void => void (rows.length < ROWS_SHOWN && rows.push(cells));
  const reader = sourceReader(base, file.name, {
    message(message) {
      tally.message(message);
      show(messageCells(message));
    },
    item(item) {
      tally.item(item);
      show([item.channelHandle ?? '', '', minuteOf(item.time), item.title, item.text, 'item', '']);
    },
    follow(follow) {
      tally.follow(follow);
      show([follow.follower, follow.followed, '', '', '', 'follows', '']);
    },
    profile(one) {
      const { handle, name, profile } = one;
      tally.profile(one);
      show([handle, '', minuteOf(profile.joined), name ?? '', profile.description ?? '', 'account', '']);
    },
    skip: (row) => tally.skip(row),
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
    const first = tally.problems[0];
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
    problems: tally.problems.slice(0, 50),
    outcome: tally.sentence(file.head.length >= file.size),
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
    minuteOf(time),
    subject ?? '',
    text,
    kind,
    parentKey ?? '',
  ];
}

/** 2026-03-31 14:05 */
function minuteOf(time: number | null): string {
  return time === null ? '' : new Date(time).toISOString().slice(0, 16).replace('T', ' ');
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
      network: sketchOf(found),
      rows: Array.from({ length: shown }, (_, e) => [
        label(edges['source'][e] as number),
        label(edges['target'][e] as number),
        cell('weight', e),
        ...edgeColumns.map((name) => cell(name, e)),
      ]),
    },
  );
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
