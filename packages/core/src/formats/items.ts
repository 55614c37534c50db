import type { IncomingItem, ImportMapping, SkippedRow } from '@pebble/contract';
import { cleanHandle } from '../text/mentions';
import { Cells } from './cells';
import type { FileRecord } from './record';

/** A function that turns a record into a video, page or other item, or says why it cannot be one. */
export function takeItem(reading: ImportMapping): (record: FileRecord) => IncomingItem | SkippedRow {
  const cells = new Cells(reading);
  const id = cells.reader('id');
  const title = cells.reader('subject');
  const channel = cells.reader('author');
  const channelName = cells.reader('authorName');
  const published = cells.reader('time');
  const text = cells.reader('text');
  const link = cells.reader('link');
  const language = cells.reader('language');
  return (record) => {
    const key = id(record);
    if (key === '') return cells.skip(record, 'id', 'The row has no id.');
    if (title(record) === '') return cells.skip(record, 'subject', 'The row has no title.');
    const time = cells.time(record, 'time', published(record));
    if (typeof time === 'object' && time !== null) return time;
    return {
      key,
      title: title(record),
      channelHandle: cleanHandle(channel(record)) || null,
      channelName: channelName(record) || null,
      text: text(record),
      time,
      link: link(record) || null,
      ...cells.more(record, language(record)),
    };
  };
}

/**
 * A function that gives the item of which a comment's row tells the title, once for each item; null where the row tells none or the item
 * came before.
 */
export function takeItemOfComment(reading: ImportMapping): (record: FileRecord) => IncomingItem | null {
  const cells = new Cells(reading);
  const id = cells.reader('item');
  const title = cells.reader('itemTitle');
  const seen = new Set<string>();
  return (record) => {
    const key = id(record);
    if (key === '' || title(record) === '' || seen.has(key)) return null;
    seen.add(key);
    return {
      key,
      title: title(record),
      channelHandle: null,
      channelName: null,
      text: '',
      time: null,
      link: null,
      numbers: {},
      attributes: {},
    };
  };
}
