import type { Preview, ImportMapping } from '@pebble/contract';
import { guessMaterial } from '../columns';
import { UnreadableFile } from '../unreadable';
import { readWorkbook, sheetRecords, type Sheet } from '../workbook';
import { chosenMeaning, type FileHead } from './findings';
import { emptySample, sampleSink, type Sample } from './sample';
import { previewTable } from './tablePreview';

/** Rows of a workbook's sheets that are looked at. */
const SHEET_ROWS = 2000;

/** A first look at a workbook. Throws UnreadableFile when it has no table. */
export function previewWorkbook(file: FileHead, chosen?: Partial<ImportMapping>): Preview {
  const sheets = readWorkbook(file.whole(), SHEET_ROWS);
  const filled = sheets.filter(({ rows }) => rows.length > 1);
  if (filled.length === 0) throw new UnreadableFile('The workbook has no sheet with a heading and rows.');
  const proposed = chooseSheets(filled);
  const sheet = sheets.find(({ name }) => name === chosen?.sheet) ?? proposed.sheet;
  const sample = sampleSheet(sheet);
  if (sample.names.length === 0) throw new UnreadableFile(`The sheet “${sheet.name}” is empty.`);
  const base: ImportMapping = {
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
  const nodeSheet = sheet === proposed.sheet ? proposed.nodeSheet : null;
  if (nodeSheet) reasons.push(`The sheet “${nodeSheet}” seems to hold their nodes.`);
  const preview = previewTable(
    file,
    sample,
    base,
    reasons,
    sheet.isWhole,
    chosen,
    `${file.name}, ${sheet.name}`,
  );
  return { ...preview, sheets: sheets.map(({ name }) => name), nodeSheet };
}

function sampleSheet(sheet: Sheet): Sample {
  const sample = emptySample();
  sheetRecords(sheet, sampleSink(sample), (names) => (sample.names = names)).end();
  return sample;
}

/** The sheet to begin with: that of the ties, where another one holds their nodes; else, as a note beside the table is common, the largest. */
function chooseSheets(sheets: readonly Sheet[]): { sheet: Sheet; nodeSheet: string | null } {
  const guesses = sheets.map((sheet) => {
    const { names, rows } = sampleSheet(sheet);
    return { sheet, material: guessMaterial(names, rows, sheet.name) };
  });
  const ties = guesses.find(({ material }) => material === 'network');
  const nodes = guesses.find(({ material }) => material === 'nodes');
  if (ties && nodes) return { sheet: ties.sheet, nodeSheet: nodes.sheet.name };
  const cells = ({ rows }: Sheet): number => rows.reduce((sum, row) => sum + row.length, 0);
  return { sheet: sheets.reduce((a, b) => (cells(b) > cells(a) ? b : a)), nodeSheet: null };
}
