import type { IncomingMessage, Reading, SkippedRow } from '@pebble/contract';
import { recordReader, takePost } from '@pebble/core/files';
import { readTextFile } from '../files/textFile';

/** Where what is read goes to. */
export interface IntakeSink {
  message(message: IncomingMessage): void;
  skip(row: SkippedRow): void;
  /** Called after each piece of the file with the share that was read. */
  piece(share: number): void;
}

/** Reads the messages of a file, piece by piece. */
export function readFile(path: string, file: string, reading: Reading, sink: IntakeSink): void {
  const take = takePost(reading);
  const hasIds = reading.columns.some((column) => column.role === 'id');
  const reader = recordReader(reading, {
    onRecord(record) {
      const taken = take(record);
      if ('reason' in taken) sink.skip(taken);
      else sink.message(hasIds ? taken : nameByRow(taken, file, record.row));
    },
    onSkip: (row, field, reason) => sink.skip({ row, field, reason }),
  });
  readTextFile(path, reading.encoding, (text, share) => {
    reader.write(text);
    sink.piece(share);
  });
  reader.end();
}

/** Without an id, a message is known by the file and the row where it stands. */
function nameByRow(message: IncomingMessage, file: string, row: number): IncomingMessage {
  return { ...message, key: `${file} row ${row}` };
}
