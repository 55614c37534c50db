import { Material, type Column, type Preview, type ImportMapping } from '@pebble/contract';
import { guessColumns, guessMaterial, isAttendance, missingRoles } from '../columns';
import { guessDateForm } from '../dates';
import { isSquareMatrix, readMatrix } from '../networks/matrix';
import { UnreadableFile } from '../unreadable';
import { MOST_COLUMNS } from '../workbook';
import { formatCount } from '../../words/sentence';
import { previewOf, ROWS_SHOWN, type FileHead } from './findings';
import { previewNetwork } from './networkPreview';
import type { Sample } from './sample';
import { readSafely, tryRecords } from './trial';

/** Columns at most where each stands for a thing, as in a matrix. */
const MOST_IN_MATRIX = 20_000;

/** A first look at a table: what it holds, what its columns are, and what cannot be read of its first rows. */
export function previewTable(
  file: FileHead,
  sample: Sample,
  base: ImportMapping,
  reasons: string[],
  complete: boolean,
  chosen?: Partial<ImportMapping>,
  /** What the table is called: its file or its sheet. */
  called = file.name,
): Preview {
  const width = sample.names.length;
  if (width > MOST_IN_MATRIX) throw tooWide(width, MOST_IN_MATRIX);
  const isMatrix = (chosen?.material ?? 'network') === 'network' && isSquareMatrix(sample.names, sample.rows);
  const material: Material =
    chosen?.material ??
    (isMatrix
      ? 'network'
      : base.format === 'list'
        ? 'groups'
        : guessMaterial(sample.names, sample.rows, called));
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
  if (material !== 'two-mode' && width > MOST_COLUMNS) throw tooWide(width, MOST_COLUMNS);
  const columns = chosen?.columns?.length
    ? chosen.columns
    : guessColumns(sample.names, sample.rows, material);
  const timeColumn = columns.findIndex((column) => column.role === 'time');
  const dates = timeColumn < 0 ? null : guessDateForm(sample.rows.map((row) => row[timeColumn] ?? ''));
  const reading: ImportMapping = {
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

function tooWide(width: number, most: number): UnreadableFile {
  return new UnreadableFile(
    `The table has ${formatCount(width)} columns; at most ${formatCount(most)} are read. Save what is needed of it as CSV.`,
    1,
  );
}

/** Why a table was taken for what it is. */
const MATERIAL_REASON: Partial<Record<Material, string>> = {
  network: 'Its columns name two ends, so its rows are ties.',
  nodes: 'Its rows are nodes of a network.',
  items: 'Its columns name titles and channels, so its rows are items such as videos or pages.',
  follows: 'Its columns name followers, so its rows say who follows whom.',
  accounts: 'Its columns tell of accounts and hold no messages.',
  'two-mode': 'Its rows and columns are two different sorts of things, so it is two-mode data.',
  groups: 'It gives each node a group.',
};

/** Which of the ways of writing two-mode data a table has, and what stands between several values of a cell. */
function guessTwoMode(
  columns: readonly Column[],
  { names, rows }: Sample,
): Partial<ImportMapping['twoMode']> {
  if (columns.some(({ role }) => role === 'thing') || isAttendance(names, rows)) return { layout: 'matrix' };
  const target = columns.findIndex(({ role }) => role === 'target');
  const share = (mark: string): number =>
    rows.filter((row) => (row[target] ?? '').includes(mark)).length / Math.max(1, rows.length);
  const between = [';', '|', ','].find((mark) => share(mark) > 0.1);
  return between ? { layout: 'cells', between } : { layout: 'pairs' };
}
