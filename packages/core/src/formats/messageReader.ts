import type { IncomingMessage, Reading, SkippedRow } from '@pebble/contract';
import { takeActivity } from './activities';
import { CsvReader } from './csv';
import { takeEmail } from './email';
import { JsonItemCutter } from './jsonItems';
import { JsonDocumentReader, JsonLinesReader, parseJson } from './jsonLines';
import { LineCutter } from './lines';
import { MboxCutter, type RawMail } from './mbox';
import { takePost } from './posts';
import type { FileRecord, RecordReader, RecordSink } from './record';
import { readWorkbook, sheetRecords } from './workbook';

/** Where the messages of a file go to. */
export interface MessageSink {
  message(message: IncomingMessage): void;
  skip(row: SkippedRow): void;
}

/** Takes a file piece by piece: text, or for email its bytes as characters 0 to 255. */
export interface MessageReader {
  write(chunk: string): void | Promise<void>;
  end(): void | Promise<void>;
}

/** A reader of the records of a table, by how it is to be read. */
export function recordReader(reading: Reading, sink: RecordSink): RecordReader {
  const names = reading.columns.map((column) => column.name);
  if (reading.format === 'jsonl') return new JsonLinesReader(names, sink);
  if (reading.format === 'json') return new JsonDocumentReader(names, sink);
  return new CsvReader(reading.delimiter, sink);
}

/** A reader of messages for every format but workbooks, which `readWorkbookMessages` reads whole. */
export function messageReader(reading: Reading, file: string, sink: MessageSink): MessageReader {
  switch (reading.format) {
    case 'activities':
      return reading.delimiter === '\n' ? new ActivityLines(sink) : new ActivityDocument(sink);
    case 'mbox':
      return new Mailbox(sink);
    case 'eml':
      return new SingleMail(sink);
    default:
      return recordReader(reading, postSink(reading, file, sink));
  }
}

export async function readWorkbookMessages(
  bytes: Uint8Array,
  reading: Reading,
  file: string,
  sink: MessageSink,
): Promise<void> {
  const sheets = await readWorkbook(bytes);
  const sheet = sheets.find(({ name }) => name === reading.sheet) ?? sheets[0];
  if (sheet) sheetRecords(sheet, postSink(reading, file, sink)).end();
}

function postSink(reading: Reading, file: string, sink: MessageSink): RecordSink {
  const take = takePost(reading);
  const hasIds = reading.columns.some((column) => column.role === 'id');
  return {
    onRecord(record: FileRecord) {
      const taken = take(record);
      if ('reason' in taken) sink.skip(taken);
      // Without an id, a message is known by the file and the row where it stands.
      else sink.message(hasIds ? taken : { ...taken, key: `${file} row ${record.row}` });
    },
    onSkip: (row, field, reason) => sink.skip({ row, field, reason }),
  };
}

function hand(sink: MessageSink, taken: IncomingMessage | SkippedRow): void {
  if ('reason' in taken) sink.skip(taken);
  else sink.message(taken);
}

function takeActivityText(sink: MessageSink, row: number, text: string): void {
  const value = parseJson(text);
  if (value instanceof Error) sink.skip({ row, field: null, reason: `Not valid JSON: ${value.message}` });
  else hand(sink, takeActivity(value, row));
}

class ActivityLines implements MessageReader {
  private readonly cutter: LineCutter;

  constructor(sink: MessageSink) {
    this.cutter = new LineCutter(({ number, text }) => {
      if (text === null)
        sink.skip({ row: number, field: null, reason: 'The line is longer than 8 million characters.' });
      else if (text.trim() !== '') takeActivityText(sink, number, text);
    });
  }

  write(chunk: string): void {
    this.cutter.write(chunk);
  }

  end(): void {
    this.cutter.end();
  }
}

/** A collection, or one object that stands alone. */
class ActivityDocument implements MessageReader {
  private static readonly LARGEST_ALONE = 1024 * 1024;
  private readonly cutter: JsonItemCutter;
  private start = '';

  constructor(private readonly sink: MessageSink) {
    this.cutter = new JsonItemCutter(
      ({ row, text }) => takeActivityText(sink, row, text),
      (row) => sink.skip({ row, field: null, reason: 'The item is longer than 8 million characters.' }),
    );
  }

  write(chunk: string): void {
    this.cutter.write(chunk);
    if (!this.cutter.found && this.start.length < ActivityDocument.LARGEST_ALONE) this.start += chunk;
  }

  end(): void {
    this.cutter.end();
    if (!this.cutter.found) takeActivityText(this.sink, 1, this.start);
  }
}

class Mailbox implements MessageReader {
  private mails: RawMail[] = [];
  private readonly cutter: MboxCutter;

  constructor(private readonly sink: MessageSink) {
    this.cutter = new MboxCutter(
      (mail) => void this.mails.push(mail),
      (row) => sink.skip({ row, field: null, reason: 'The email is larger than 64 MB.' }),
    );
  }

  async write(chunk: string): Promise<void> {
    this.cutter.write(chunk);
    await this.takeMails();
  }

  async end(): Promise<void> {
    this.cutter.end();
    await this.takeMails();
  }

  private async takeMails(): Promise<void> {
    const { mails } = this;
    this.mails = [];
    for (const mail of mails) hand(this.sink, await takeEmail(mail));
  }
}

class SingleMail implements MessageReader {
  private bytes = '';

  constructor(private readonly sink: MessageSink) {}

  write(chunk: string): void {
    this.bytes += chunk;
  }

  async end(): Promise<void> {
    hand(this.sink, await takeEmail({ row: 1, bytes: this.bytes }));
  }
}
