import { readFileSync } from 'node:fs';
import type { ImportMapping } from '@pebble/contract';
import { readWorkbookSource, sourceReader, type SourceSink } from '@pebble/core/files';
import { readPieces, readTextFile } from '../files/textFile';

/** Where what is read goes to. */
interface IntakeSink extends SourceSink {
  /** Called after each piece of the file with the share that was read. */
  piece(share: number): void;
}

/** Reads what a file holds, piece by piece where its format allows. */
export async function readFile(
  path: string,
  file: string,
  reading: ImportMapping,
  sink: IntakeSink,
): Promise<void> {
  if (reading.format === 'xlsx') {
    readWorkbookSource(readFileSync(path), reading, file, sink);
    return;
  }
  const reader = sourceReader(reading, file, sink);
  const isMail = reading.format === 'mbox' || reading.format === 'eml';
  if (isMail) {
    for (const { bytes, share } of readPieces(path)) {
      await reader.write(bytes.toString('latin1'));
      sink.piece(share);
    }
  } else {
    readTextFile(path, reading.encoding, (text, share) => {
      void reader.write(text);
      sink.piece(share);
    });
  }
  await reader.end();
}
