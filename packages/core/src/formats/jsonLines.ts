import { parse as parseLossless, isLosslessNumber } from 'lossless-json';
import { endDocument, JsonItemCutter } from './jsonItems';
import { LineCutter, type Line } from './lines';
import type { RecordReader, RecordSink } from './record';

const DEEPEST = 4;

/**
 * Makes records of JSON objects. Values inside objects get dotted names ("author.handle"), lists of plain values are joined with spaces. Numbers beyond 2^53 are kept as they are written.
 */
export class JsonRecords {
  private readonly index: Map<string, number>;

  constructor(
    private readonly columns: readonly string[],
    private readonly sink: RecordSink,
  ) {
    this.index = new Map(columns.map((name, i) => [name, i]));
  }

  /** Takes the text of one object. */
  take(row: number, text: string): void {
    const value = parseJson(text);
    if (value instanceof Error) {
      this.sink.onSkip(row, null, `Not valid JSON: ${value.message}`);
    } else if (typeof value !== 'object' || value === null || Array.isArray(value)) {
      this.sink.onSkip(row, null, 'This is JSON, but not an object in { }.');
    } else {
      this.takeObject(row, value as Record<string, unknown>);
    }
  }

  private takeObject(row: number, object: Record<string, unknown>): void {
    const values = new Array<string>(this.columns.length).fill('');
    let extra: [string, string][] | null = null;
    const walk = (prefix: string, node: Record<string, unknown>, depth: number): void => {
      for (const key of Object.keys(node)) {
        const value = node[key];
        const name = prefix === '' ? key : `${prefix}.${key}`;
        if (isBranch(value) && depth < DEEPEST) {
          walk(name, value, depth + 1);
          continue;
        }
        const text = asText(value);
        if (text === '') continue;
        const column = this.index.get(name);
        if (column !== undefined) values[column] = text;
        else (extra ??= []).push([name, text]);
      }
    };
    walk('', object, 1);
    this.sink.onRecord({ row, values, extra: extra && Object.fromEntries(extra) });
  }
}

/** Reads JSON Lines: one JSON object (RFC 8259) a line. */
export class JsonLinesReader implements RecordReader {
  private readonly cutter = new LineCutter((line) => this.addLine(line));
  private readonly records: JsonRecords;

  constructor(
    columns: readonly string[],
    private readonly sink: RecordSink,
  ) {
    this.records = new JsonRecords(columns, sink);
  }

  write(chunk: string): void {
    this.cutter.write(chunk);
  }

  end(): void {
    this.cutter.end();
  }

  private addLine(line: Line): void {
    if (line.text === null) {
      this.sink.onSkip(line.number, null, 'The line is longer than 8 million characters.');
      return;
    }
    const text = line.number === 1 ? line.text.replace(/^\ufeff/, '') : line.text;
    if (text.trim() !== '') this.records.take(line.number, text);
  }
}

/** Reads the items of a JSON document's list as records. */
export class JsonDocumentReader implements RecordReader {
  private readonly cutter: JsonItemCutter;

  constructor(
    columns: readonly string[],
    private readonly sink: RecordSink,
  ) {
    const records = new JsonRecords(columns, sink);
    this.cutter = new JsonItemCutter(
      ({ row, text }) => records.take(row, text),
      (row) => sink.onSkip(row, null, 'The item is longer than 8 million characters.'),
    );
  }

  write(chunk: string): void {
    this.cutter.write(chunk);
  }

  end(): void {
    endDocument(this.cutter, (row, reason) => this.sink.onSkip(row, null, reason));
  }
}

/** The value of a JSON text, or the error; numbers that would lose digits are held by objects that know how they were written. */
export function parseJson(text: string): unknown {
  const value = parseLine(text, JSON.parse);
  if (value instanceof Error) return value;
  try {
    return isExact(value) ? value : parseLine(text, parseLossless);
  } catch (error) {
    return error instanceof Error ? error : new Error(String(error));
  }
}

function parseLine(text: string, parse: (text: string) => unknown): unknown {
  try {
    return parse(text);
  } catch (error) {
    return error instanceof Error ? error : new Error(String(error));
  }
}

/** Lists and objects within each other; no message needs more. */
const DEEPEST_JSON = 200;

/** Whether no number inside has lost digits; beyond 2^53 it would have, and the slower parser keeps them. Throws where it is too deep. */
function isExact(value: unknown, depth = 0): boolean {
  if (typeof value === 'number')
    return !Number.isInteger(value) ? Number.isFinite(value) : Number.isSafeInteger(value);
  if (typeof value !== 'object' || value === null) return true;
  if (depth === DEEPEST_JSON) throw new RangeError(`it is nested more than ${DEEPEST_JSON} deep`);
  let isSo = true;
  for (const key in value) if (!isExact((value as Record<string, unknown>)[key], depth + 1)) isSo = false;
  return isSo;
}

function isBranch(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value) && !isLosslessNumber(value);
}

function asText(value: unknown): string {
  if (typeof value === 'string') return value;
  if (value === null || value === undefined) return '';
  if (isLosslessNumber(value)) return value.toString();
  if (Array.isArray(value)) {
    return value.every((item) => typeof item !== 'object' || item === null || isLosslessNumber(item))
      ? value.map(asText).join(' ')
      : JSON.stringify(value);
  }
  return typeof value === 'object' ? JSON.stringify(value) : String(value);
}
