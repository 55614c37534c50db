import { randomUUID } from 'node:crypto';
import { closeSync, openSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import SqliteDatabase from 'better-sqlite3';
import { postsAsJsonLines, makePosts } from '@pebble/standins';
import { recordReader, takePost } from '@pebble/core/files';
import { weaveAccounts } from '@pebble/core';
import { AccountWeave, type IncomingMessage } from '@pebble/contract';
import { readAddresses } from '../../apps/server/src/storage/addresses';
import { newStudyId } from '../../apps/server/src/storage/ids';
import { StudyFolders } from '../../apps/server/src/storage/studyFolders';
import { uploadPath } from '../../apps/server/src/files/places';
import { readTextFile } from '../../apps/server/src/files/textFile';
import { lookAt } from '../../apps/server/src/intake/inspectUpload';
import { Runner } from '../../apps/server/src/runner/runner';
import { atMost, time, under, type Row } from './measure';

const [folder, wanted] = process.argv.slice(2);
const posts = Number(wanted);
const label = `${posts.toLocaleString('en')} posts, JSON Lines`;

/** Writes the posts in a process-friendly way: made once, written in pieces, then forgotten. */
function writeFile(path: string): void {
  const file = openSync(path, 'w');
  const made = makePosts(posts).posts;
  for (let from = 0; from < made.length; from += 20_000)
    writeSync(file, postsAsJsonLines(made.slice(from, from + 20_000)));
  closeSync(file);
}

const studies = await StudyFolders.open(folder);
const study = newStudyId();
await studies.make(study);
const upload = randomUUID();
const path = uploadPath(studies.folderOf(study), upload);
writeFile(path);
const { reading } = await lookAt(path, 'posts.jsonl');

// The reference: the same rows, read beforehand, into one bare table.
async function bareInsert(): Promise<number> {
  const rows: IncomingMessage[] = [];
  const take = takePost(reading);
  const reader = recordReader(reading, {
    onRecord: (record) => {
      const taken = take(record);
      if (!('reason' in taken)) rows.push(taken);
    },
    onSkip: () => undefined,
  });
  readTextFile(path, reading.encoding, (text) => reader.write(text));
  reader.end();
  const cells = rows.map((m) => [
    m.key,
    m.authorHandle,
    m.authorName,
    m.text,
    m.time,
    m.kind,
    m.parentKey,
    m.parentHandle,
    m.link,
    JSON.stringify({ numbers: m.numbers, attributes: m.attributes }),
  ]);
  const db = new SqliteDatabase(join(folder, 'bare.sqlite'));
  db.pragma('journal_mode = WAL');
  db.pragma('synchronous = NORMAL');
  db.exec('create table message (key, author, name, text, time, kind, parent, parent_author, link, more)');
  const insert = db.prepare('insert into message values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)');
  const elapsed = await time(1, () => db.transaction(() => cells.forEach((row) => insert.run(...row)))());
  db.close();
  return elapsed;
}
const bare = await bareInsert();
(globalThis as { gc?: () => void }).gc?.();

const runner = new Runner(studies, join(import.meta.dirname, 'runner/thread.cjs'), {
  mostRows: 20_000_000,
  longestLook: 10_000,
});
await runner.submit(study, { kind: 'create-study', parameters: { name: 'Bench' } });
let peak = 0;
const before = process.memoryUsage().rss;
const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 50);
const started = performance.now();
const { step } = await runner.submit(study, {
  kind: 'import-source',
  parameters: { upload, file: 'posts.jsonl', name: 'posts', reading },
});
const importing = performance.now() - started;
clearInterval(watch);
if (step.state !== 'done') throw new Error(step.error ?? 'The import failed.');

const store = studies.storeOf(study)!;
const select = store.raw
  .prepare('select message_id, from_id, to_id, kinds, time from address order by message_id')
  .raw();
const plain = await time(3, () => {
  let seen = 0;
  for (const _ of select.iterate()) seen++;
  return seen;
});
const weaving = await time(3, () =>
  weaveAccounts(
    readAddresses(store),
    AccountWeave.parse({ what: 'accounts', kinds: ['reply', 'mention', 'repost'] }),
  ),
);
const rows: Row[] = [
  atMost(
    'Import, everything included',
    label,
    importing,
    bare,
    5,
    `${Math.round((posts / importing) * 1000).toLocaleString('en')} posts a second`,
  ),
  under(
    'Import: memory of the process above what it held before',
    label,
    (peak - before) / 1024 ** 2,
    600,
    'MB',
    `whole process ${Math.round(peak / 1024 ** 2)} MB, with what the reference left behind`,
  ),
  atMost(
    'Weaving accounts by address',
    `${posts.toLocaleString('en')} messages`,
    weaving,
    plain,
    2,
    'reference: reading the same rows',
  ),
];
await runner.close();
await studies.close();
process.send?.(rows, () => process.exit(0));
