import type { Column, IncomingMessage, Preview, ImportMapping } from '@pebble/contract';
import { sourceReader } from '../sourceReader';
import { UnreadableFile } from '../unreadable';
import { previewOf, ROWS_SHOWN, type FileHead } from './findings';
import { Tally } from './tally';

/** The columns in which messages of a format with a meaning of its own are shown. */
const MESSAGE_COLUMNS: readonly Column[] = [
  { name: 'author', role: 'author' },
  { name: 'to', role: 'to' },
  { name: 'time (UTC)', role: 'time' },
  { name: 'subject', role: 'subject' },
  { name: 'text', role: 'text' },
  { name: 'kind', role: 'kind' },
  { name: 'answers', role: 'parent' },
];

/** A first look at messages of a format with a meaning of its own. */
export async function previewMessages(
  file: FileHead,
  text: string,
  base: ImportMapping,
  reasons: string[],
): Promise<Preview> {
  const rows: string[][] = [];
  const tally = new Tally();
  const show = (cells: string[]): void => void (rows.length < ROWS_SHOWN && rows.push(cells));
  const reader = sourceReader(base, file.name, {
    message(message) {
      tally.message(message);
      show(messageCells(message));
    },
    item(item) {
      tally.item(item);
      show([item.channelHandle ?? '', '', minuteOf(item.time), item.title, item.text, 'item', '']);
    },
    follow(follow) {
      tally.follow(follow);
      show([follow.follower, follow.followed, '', '', '', 'follows', '']);
    },
    profile(one) {
      const { handle, name, profile } = one;
      tally.profile(one);
      show([handle, '', minuteOf(profile.joined), name ?? '', profile.description ?? '', 'account', '']);
    },
    skip: (row) => tally.skip(row),
  });
  await reader.write(text);
  if (file.head.length >= file.size) {
    try {
      await reader.end();
    } catch (error) {
      throw new UnreadableFile(error instanceof Error ? error.message : String(error));
    }
  } else if (rows.length === 0) await reader.end();
  if (rows.length === 0) {
    const first = tally.problems[0];
    throw new UnreadableFile(
      first
        ? `No message was found. Line ${first.row}: ${first.reason}`
        : 'No message was found in the file.',
      first?.row ?? null,
    );
  }
  return previewOf(file, { ...base, columns: [...MESSAGE_COLUMNS] }, reasons, {
    fixed: true,
    rows,
    problems: tally.problems.slice(0, 50),
    outcome: tally.sentence(file.head.length >= file.size),
  });
}

function messageCells({
  authorHandle,
  addressed,
  time,
  kind,
  parentKey,
  subject,
  text,
}: IncomingMessage): string[] {
  return [
    authorHandle,
    addressed.map(({ handle }) => handle).join(' '),
    minuteOf(time),
    subject ?? '',
    text,
    kind,
    parentKey ?? '',
  ];
}

/** 2026-03-31 14:05 */
function minuteOf(time: number | null): string {
  return time === null ? '' : new Date(time).toISOString().slice(0, 16).replace('T', ' ');
}
