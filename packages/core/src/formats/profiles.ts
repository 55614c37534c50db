import type { ColumnRole, IncomingProfile, Profile, ImportMapping, SkippedRow } from '@pebble/contract';
import { cleanHandle } from '../text/mentions';
import { Cells, numberOrText } from './cells';
import type { FileRecord } from './record';

/** Counts of an account that have columns of their own. */
const COUNTS: readonly ColumnRole[] = ['followers', 'following', 'posts'];

/** A function that reads what a row tells of an account, or says why it cannot. */
export function profileReader(reading: ImportMapping): (record: FileRecord) => Profile | SkippedRow {
  const cells = new Cells(reading);
  const counts = COUNTS.map((role) => ({ name: role, read: cells.reader(role) }));
  const joinedAt = cells.reader('joined');
  const location = cells.reader('location');
  const description = cells.reader('description');
  return (record) => {
    const joined = cells.time(record, 'joined', joinedAt(record));
    if (typeof joined === 'object' && joined !== null) return joined;
    const { numbers, attributes } = cells.more(record);
    for (const { name, read } of counts) {
      const written = read(record);
      if (written !== '') numbers[name] = numberOrText(written);
    }
    return {
      joined,
      location: location(record) || null,
      description: description(record) || null,
      numbers,
      attributes,
    };
  };
}

/** A function that turns a row of account details into a profile, or says why it cannot. */
export function takeProfile(reading: ImportMapping): (record: FileRecord) => IncomingProfile | SkippedRow {
  const cells = new Cells(reading);
  const handle = cells.reader('author');
  const name = cells.reader('authorName');
  const read = profileReader(reading);
  return (record) => {
    const written = cleanHandle(handle(record));
    if (written === '') return cells.skip(record, 'author', 'The row names no account.');
    const profile = read(record);
    if ('reason' in profile) return profile;
    return { row: record.row, handle: written, name: name(record) || null, profile };
  };
}

/** Whether a profile tells anything. */
export function tellsAnything({ joined, location, description, numbers, attributes }: Profile): boolean {
  if (joined !== null || location !== null || description !== null) return true;
  return Object.keys(numbers).length > 0 || Object.keys(attributes).length > 0;
}
