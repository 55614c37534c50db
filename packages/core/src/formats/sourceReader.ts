import type { IncomingMessage, ImportMapping, SkippedRow } from '@pebble/contract';
import { takeActivity } from './activities';
import { CsvReader } from './csv';
import { takeEmail } from './email';
import { takeFollow } from './follows';
import { takeItem, takeItemOfComment } from './items';
import { endDocument, JsonItemCutter } from './jsonItems';
import { takeJmapEmail } from './jmapEmail';
import { JsonDocumentReader, JsonLinesReader, parseJson } from './jsonLines';
import { LineCutter } from './lines';
import { ListReader } from './listLines';
import { MboxCutter, type RawMail } from './mbox';
import { takePost } from './posts';
import { takeProfile } from './profiles';
import type { FileRecord, RecordReader, RecordSink } from './record';
import type { SourceSink } from './sourceSink';
import { readWorkbook, sheetRecords } from './workbook';

/** Takes a file piece by piece: text, or for email its bytes as characters 0 to 255. */
export interface SourceReader {
  write(chunk: string): void | Promise<void>;
  end(): void | Promise<void>;
}

/** A reader of the records of a table, by how it is to be read. */
export function recordReader(reading: ImportMapping, sink: RecordSink): RecordReader {
  const names = reading.columns.map((column) => column.name);
  if (reading.format === 'jsonl') return new JsonLinesReader(names, sink);
  if (reading.format === 'json') return new JsonDocumentReader(names, sink);
  if (reading.format === 'list') return new ListReader(sink);
  return new CsvReader(reading.delimiter, sink);
}

/** A reader for every format but workbooks, which `readWorkbookSource` reads whole. */
export function sourceReader(reading: ImportMapping, file: string, sink: SourceSink): SourceReader {
  switch (reading.format) {
    case 'activities':
      return reading.delimiter === '\n' ? new ObjectLines(sink, takeActivity) : new ActivityDocument(sink);
    case 'jmap':
      return new ObjectLines(sink, takeJmapEmail);
    case 'mbox':
      return new Mailbox(sink);
    case 'eml':
      return new SingleMail(sink);
    default:
      return recordReader(reading, tableSink(reading, file, sink));
  }
}

export function readWorkbookSource(
  bytes: Uint8Array,
  reading: ImportMapping,
  file: string,
  sink: SourceSink,
): void {
  const sheets = readWorkbook(bytes);
  const sheet = sheets.find(({ name }) => name === reading.sheet) ?? sheets[0];
  if (sheet) sheetRecords(sheet, tableSink(reading, file, sink)).end();
}

function tableSink(reading: ImportMapping, file: string, sink: SourceSink): RecordSink {
  return {
    onRecord: recordTaker(reading, file, sink),
    onSkip: (row, field, reason) => sink.skip({ row, field, reason }),
  };
}

/** A function that takes the records of a table for what their material says they are. */
export function recordTaker(
  reading: ImportMapping,
  file: string,
  sink: SourceSink,
): (record: FileRecord) => void {
  switch (reading.material) {
    case 'items':
      return handOn(takeItem(reading), (item) => sink.item(item), sink);
    case 'follows':
      return handOn(takeFollow(reading), (follow) => sink.follow(follow), sink);
    case 'accounts':
      return handOn(takeProfile(reading), (profile) => sink.profile(profile), sink);
    default:
      return messageTaker(reading, file, sink);
  }
}

function handOn<T extends object>(
  take: (record: FileRecord) => T | SkippedRow,
  give: (taken: T) => void,
  sink: SourceSink,
): (record: FileRecord) => void {
  return (record) => {
    const taken = take(record);
    if ('reason' in taken) sink.skip(taken);
    else give(taken);
  };
}

function messageTaker(reading: ImportMapping, file: string, sink: SourceSink): (record: FileRecord) => void {
  const hasIds = reading.columns.some((column) => column.role === 'id');
  const itemOf = reading.columns.some((column) => column.role === 'itemTitle')
    ? takeItemOfComment(reading)
    : null;
  // Without an id, a message is known by the file and the row where it stands.
  const keyed = (message: IncomingMessage, row: number): IncomingMessage =>
    hasIds ? message : { ...message, key: `${file} row ${row}` };
  const take = takePost(reading);
  return (record) => {
    const item = itemOf?.(record);
    if (item) sink.item(item);
    const taken = take(record);
    if ('reason' in taken) sink.skip(taken);
    else sink.message(keyed(taken, record.row));
  };
}

function hand(sink: SourceSink, taken: IncomingMessage | SkippedRow): void {
  if ('reason' in taken) sink.skip(taken);
  else sink.message(taken);
}

type TakeObject = (value: unknown, row: number, sink: SourceSink) => void;

function takeObjectText(sink: SourceSink, row: number, text: string, take: TakeObject): void {
  const value = parseJson(text);
  if (value instanceof Error) sink.skip({ row, field: null, reason: `Not valid JSON: ${value.message}` });
  else take(value, row, sink);
}

/** JSON objects, one a line. */
class ObjectLines implements SourceReader {
  private readonly cutter: LineCutter;

  constructor(sink: SourceSink, take: TakeObject) {
    this.cutter = new LineCutter(({ number, text }) => {
      if (text === null)
        sink.skip({ row: number, field: null, reason: 'The line is longer than 8 million characters.' });
      else if (text.trim() !== '') takeObjectText(sink, number, text, take);
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
class ActivityDocument implements SourceReader {
  private static readonly LARGEST_ALONE = 1024 * 1024;
  private readonly cutter: JsonItemCutter;
  private start = '';

  constructor(private readonly sink: SourceSink) {
    this.cutter = new JsonItemCutter(
      ({ row, text }) => takeObjectText(sink, row, text, takeActivity),
      (row) => sink.skip({ row, field: null, reason: 'The item is longer than 8 million characters.' }),
    );
  }

  write(chunk: string): void {
    this.cutter.write(chunk);
    if (!this.cutter.found && this.start.length < ActivityDocument.LARGEST_ALONE) this.start += chunk;
  }

  end(): void {
    endDocument(this.cutter, (row, reason) => this.sink.skip({ row, field: null, reason }));
    if (!this.cutter.found) takeObjectText(this.sink, 1, this.start, takeActivity);
  }
}

class Mailbox implements SourceReader {
  private mails: RawMail[] = [];
  private readonly cutter: MboxCutter;

  constructor(private readonly sink: SourceSink) {
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

class SingleMail implements SourceReader {
  private bytes = '';

  constructor(private readonly sink: SourceSink) {}

  write(chunk: string): void {
    this.bytes += chunk;
  }

  async end(): Promise<void> {
    hand(this.sink, await takeEmail({ row: 1, bytes: this.bytes }));
  }
}
