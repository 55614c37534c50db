import type { ColumnRole, IncomingMessage, MessageKind, ImportMapping, SkippedRow } from '@pebble/contract';
import { cleanHandle } from '../text/mentions';
import { findRepostMark } from '../text/repostMark';
import { Cells } from './cells';
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

/**
 * A function that turns a record into a message, or says why it cannot be one. A message without an id gets one made
 * from its row; one without a date is kept undated; a date that cannot be read is a reason to skip.
 */
export function takePost(reading: ImportMapping): (record: FileRecord) => IncomingMessage | SkippedRow {
  const cells = new Cells(reading);
  const at = (role: ColumnRole): number => cells.place(role);
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
    item: at('item'),
  };

  return (record) => {
    const value = (i: number): string => (i < 0 ? '' : record.values[i]);
    const authorHandle = cleanHandle(value(place.author));
    if (authorHandle === '') return cells.skip(record, 'author', 'The row has no author.');
    const subject = value(place.subject).trim() || null;
    const text = value(place.text) || (subject ?? '');
    const time = cells.time(record, 'time', value(place.time).trim());
    if (typeof time === 'object' && time !== null) return time;
    const mark = findRepostMark(text);
    const parentKey = value(place.parent).trim() || null;
    const parentHandle = cleanHandle(value(place.parentAuthor)) || (mark?.handle ?? null);
    const itemKey = value(place.item).trim() || null;
    const hasParent = parentKey !== null || parentHandle !== null;
    const kind = kindOf(value(place.kind), mark !== null, hasParent, itemKey !== null);
    if (text === '' && kind !== 'repost') return cells.skip(record, 'text', 'The row has no text.');
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
      itemKey,
      ...cells.more(record, value(place.language).trim()),
    };
  };
}

function kindOf(written: string, marked: boolean, hasParent: boolean, underItem: boolean): MessageKind {
  const known = KINDS[written.trim().toLowerCase()];
  if (known && known !== 'post') return known;
  if (marked) return 'repost';
  if (hasParent) return 'reply';
  return underItem ? 'comment' : 'post';
}

/** Receivers in one cell, with commas, semicolons or white space between them. */
function handlesIn(cell: string): string[] {
  return [...new Set(cell.split(/[\s,;]+/).map(cleanHandle))].filter((handle) => handle !== '');
}
