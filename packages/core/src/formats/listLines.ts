import { LineCutter } from './lines';
import type { RecordReader, RecordSink } from './record';

/** Reads a plain list, one value a line and no heading; blank lines are passed over. */
export class ListReader implements RecordReader {
  private readonly cutter: LineCutter;

  constructor(sink: RecordSink) {
    this.cutter = new LineCutter(({ number, text }) => {
      if (text === null) sink.onSkip(number, null, 'The line is longer than 8 million characters.');
      else if (text.trim() !== '') sink.onRecord({ row: number, values: [text.trim()], extra: null });
    });
  }

  write(chunk: string): void {
    this.cutter.write(chunk);
  }

  end(): void {
    this.cutter.end();
  }
}
