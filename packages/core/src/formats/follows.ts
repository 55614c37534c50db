import type { IncomingFollow, ImportMapping, SkippedRow } from '@pebble/contract';
import { cleanHandle, handleKey } from '../text/mentions';
import { Cells } from './cells';
import { profileReader, tellsAnything } from './profiles';
import type { FileRecord } from './record';

/** A function that reads who follows whom from a row, or says why it cannot. */
export function takeFollow(reading: ImportMapping): (record: FileRecord) => IncomingFollow | SkippedRow {
  const cells = new Cells(reading);
  const followerOf = cells.reader('follower');
  const followedOf = cells.reader('followed');
  const name = cells.reader('authorName');
  const profileOf = profileReader(reading);
  return (record) => {
    const follower = cleanHandle(followerOf(record));
    const followed = cleanHandle(followedOf(record) || reading.followed);
    if (follower === '') return cells.skip(record, 'follower', 'The row names no follower.');
    if (followed === '') return cells.skip(record, 'followed', 'The row does not say who is followed.');
    if (handleKey(follower) === handleKey(followed))
      return cells.skip(record, 'follower', 'The account would follow itself.');
    const profile = profileOf(record);
    if ('reason' in profile) return profile;
    return {
      follower,
      followerName: name(record) || null,
      followed,
      profile: tellsAnything(profile) ? profile : null,
    };
  };
}

/**
 * The account whose followers a file lists, by common ways to name such files: "followers of harbour_post.csv",
 * "harbour_post followers.csv", "harbour_post.csv".
 */
export function followedByFileName(file: string): string {
  const bare = file
    .split(/[\\/]/)
    .at(-1)!
    .replace(/\.[a-z0-9]{1,5}$/i, '');
  const rest = bare
    .replace(/^(?:list[\s_-]*of[\s_-]*)?followers?[\s_-]+(?:(?:of|for)[\s_-]+)?/i, '')
    .replace(/[\s_-]+followers?$/i, '')
    .replace(/^@/, '')
    .trim();
  return /^[\p{L}\p{N}_.@-]+$/u.test(rest) ? rest : '';
}
