import type { IncomingMessage, MessageKind, Reading, SkippedRow } from '@pebble/contract';
import { cleanHandle } from '../text/mentions';
import { dateReader } from './dates';
import type { FileRecord } from './record';

const KINDS: Readonly<Record<string, MessageKind>> = {
  post: 'post',
  original: 'post',
  status: 'post',
  note: 'post',
  message: 'post',
  reply: 'reply',
  answer: 'reply',
  response: 'reply',
  replied_to: 'reply',
  repost: 'repost',
  share: 'repost',
  shared: 'repost',
  boost: 'repost',
  announce: 'repost',
  forward: 'repost',
  quote: 'quote',
  quoted: 'quote',
  quote_post: 'quote',
  comment: 'comment',
  email: 'email',
  mail: 'email',
};

/** "RT @name: ..." at the start of a text marks a repost by common practice. */
const REPOST_MARK = /^RT @([\p{L}\p{N}_.@-]*[\p{L}\p{N}_]):?\s/u;

/**
 * A function that turns a record into a message, or says why it cannot be one. A message without an id gets one made
 * from its row; one without a date is kept undated; a date that cannot be read is a reason to skip.
 */
export function takePost(reading: Reading): (record: FileRecord) => IncomingMessage | SkippedRow {
  const at = (role: string): number => reading.columns.findIndex((column) => column.role === role);
  const place = {
    id: at('id'),
    author: at('author'),
    authorName: at('authorName'),
    subject: at('subject'),
    to: at('to'),
    language: at('language'),
    text: at('text'),
    time: at('time'),
    kind: at('kind'),
    parent: at('parent'),
    parentAuthor: at('parentAuthor'),
    link: at('link'),
  };
  const numbers = columnsOf(reading, 'number');
  const attributes = columnsOf(reading, 'attribute');
  const readDate = dateReader(reading.dateForm, reading.zoneOffsetMinutes);
  const nameOf = (i: number): string | null => (i < 0 ? null : reading.columns[i].name);

  return (record) => {
    const value = (i: number): string => (i < 0 ? '' : record.values[i]);
    const skip = (field: string | null, reason: string): SkippedRow => ({ row: record.row, field, reason });
    const authorHandle = cleanHandle(value(place.author));
    if (authorHandle === '') return skip(nameOf(place.author), 'The row has no author.');
    const subject = value(place.subject).trim() || null;
    const text = value(place.text) || (subject ?? '');
    const written = value(place.time).trim();
    const time = written === '' ? null : readDate(written);
    if (written !== '' && time === null)
      return skip(nameOf(place.time), `The date cannot be read: “${clip(written)}”.`);
    const mark = text.startsWith('RT @') ? REPOST_MARK.exec(text) : null;
    const parentKey = value(place.parent).trim() || null;
    const parentHandle = cleanHandle(value(place.parentAuthor)) || mark?.[1] || null;
    const kind = kindOf(value(place.kind), mark !== null, parentKey !== null || parentHandle !== null);
    if (text === '' && kind !== 'repost') return skip(nameOf(place.text), 'The row has no text.');
    return {
      key: value(place.id).trim() || `row ${record.row}`,
      authorHandle,
      authorName: value(place.authorName).trim() || null,
      subject: subject === text ? null : subject,
      text,
      time,
      kind,
      parentKey,
      parentHandle,
      addressed: handlesIn(value(place.to)).map((handle) => ({ handle, name: null, how: 'to' })),
      hashtags: [],
      link: value(place.link).trim() || null,
      numbers: readNumbers(numbers, record),
      attributes: withLanguage(readAttributes(attributes, record), value(place.language).trim()),
    };
  };
}

interface NamedColumn {
  readonly name: string;
  readonly index: number;
}

function columnsOf(reading: Reading, role: string): NamedColumn[] {
  return reading.columns.flatMap((column, index) =>
    column.role === role ? [{ name: column.name, index }] : [],
  );
}

function kindOf(written: string, marked: boolean, hasParent: boolean): MessageKind {
  const known = KINDS[written.trim().toLowerCase()];
  if (known) return known === 'post' && hasParent ? 'reply' : known;
  if (marked) return 'repost';
  return hasParent ? 'reply' : 'post';
}

function readNumbers(columns: readonly NamedColumn[], record: FileRecord): Record<string, number | string> {
  const found: Record<string, number | string> = {};
  for (const { name, index } of columns) {
    const written = record.values[index].trim();
    if (written === '') continue;
    const number = Number(written);
    // What a number cannot hold exactly, or what is none, is kept as it was written.
    found[name] = Number.isFinite(number) && Math.abs(number) <= Number.MAX_SAFE_INTEGER ? number : written;
  }
  return found;
}

/** Receivers in one cell, with commas, semicolons or white space between them. */
function handlesIn(cell: string): string[] {
  return [...new Set(cell.split(/[\s,;]+/).map(cleanHandle))].filter((handle) => handle !== '');
}

function withLanguage(attributes: Record<string, string>, language: string): Record<string, string> {
  return language === '' ? attributes : { ...attributes, language };
}

function readAttributes(columns: readonly NamedColumn[], record: FileRecord): Record<string, string> {
  const found: Record<string, string> = {};
  for (const { name, index } of columns) {
    if (record.values[index] !== '') found[name] = record.values[index];
  }
  return record.extra ? { ...found, ...record.extra } : found;
}

function clip(text: string): string {
  return text.length > 40 ? `${text.slice(0, 40)}…` : text;
}
