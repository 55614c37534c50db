import { existsSync, readFileSync } from 'node:fs';
import type { ImportMapping } from '@pebble/contract';
import { readWorkbook, recordReader, sheetRecords, type RecordSink } from '@pebble/core/files';
import { readTextFile } from '../files/textFile';
import { StepRefused } from '../errors/stepErrors';

/** Reads the records of an uploaded table, of whatever format it is; `onShare` is told how much was read. */
export function readRecords(
  path: string,
  file: string,
  reading: ImportMapping,
  sink: RecordSink,
  onShare: (share: number) => void = () => undefined,
): void {
  if (!existsSync(path))
    throw new StepRefused('The uploaded file is no longer there. Please choose it again.', { file });
  if (reading.format === 'xlsx') {
    const sheets = readWorkbook(readFileSync(path));
    const sheet = sheets.find(({ name }) => name === reading.sheet) ?? sheets[0];
    sheetRecords(sheet, sink).end();
    return;
  }
  const reader = recordReader(reading, sink);
  readTextFile(path, reading.encoding, (text, share) => {
    reader.write(text);
    onShare(share);
  });
  reader.end();
}
