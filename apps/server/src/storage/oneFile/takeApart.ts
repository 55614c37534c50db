import SqliteDatabase from 'better-sqlite3';
import { Kysely, SqliteDialect } from 'kysely';
import {
  copyFileSync,
  existsSync,
  linkSync,
  mkdirSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { formatCount } from '@pebble/core';
import { roomIn } from '../../files/diskFull';
import { catalogueFile } from '../catalogue';
import { buildRowIndexes, dropRowIndexes } from '../load/rowIndexes';
import { connect, prepareStudy, studyFolder } from '../open';
import { PARKED } from '../schema';
import { migrateOneFile } from './migrations';

/** The one file in which all studies were. */
export const oneFile = (dataFolder: string): string => join(dataFolder, 'pebble.sqlite');

/** Tables with a column that says of which study a row is. */
const OF_STUDIES = [
  'source',
  'account',
  'message',
  'address',
  'hashtag',
  'item',
  'follow',
  'profile',
  'saved_filter',
  'node_picture',
  'collect_run',
  'step',
  'follow_up',
  'network',
  'tidy_decision',
  'name',
] as const;

/** Tables whose rows are those of a study by another table. */
const BY_ANOTHER: readonly (readonly [table: string, which: string])[] = [
  ['message_hashtag', 'message_id in (select id from old.message where study_id = ?)'],
  ['message_language', 'message_id in (select id from old.message where study_id in (?, ?))'],
  ['message_mark', 'message_id in (select id from old.message where study_id in (?, ?))'],
  ['message_score', 'message_id in (select id from old.message where study_id in (?, ?))'],
  ['message_name', 'name_id in (select id from old.name where study_id = ?)'],
  ['map', 'network_id in (select id from old.network where study_id = ?)'],
];

/**
 * Takes a data folder apart in which all studies were in one file: each becomes a folder of its own. A study is there whole or not at all,
 * and the old file stays until all are, so that a kill at any moment leaves one of the two; the next start goes on with what is left.
 */
export async function takeApart(dataFolder: string, told: (what: string) => void): Promise<void> {
  if (!existsSync(oneFile(dataFolder))) return;
  const db = new SqliteDatabase(oneFile(dataFolder));
  const query = new Kysely<unknown>({ dialect: new SqliteDialect({ database: db }) });
  try {
    await migrateOneFile(query);
    const ids = db.prepare('select id from study order by created_at').pluck().all() as string[];
    const left = ids.filter((id) => !existsSync(studyFolder(dataFolder, id)));
    needRoom(dataFolder, left.length);
    for (const [i, id] of left.entries()) {
      told(`Giving each study a folder of its own: ${i + 1} of ${left.length}`);
      await takeOne(dataFolder, id, db);
    }
    takeShared(dataFolder);
  } finally {
    await query.destroy();
  }
  for (const part of ['networks', 'uploads', 'collecting'])
    rmSync(join(dataFolder, part), { recursive: true, force: true });
  // The file itself is the last to go: as long as it is there, this is not done.
  for (const end of ['-wal', '-shm', '']) rmSync(`${oneFile(dataFolder)}${end}`, { force: true });
}

/** Throws where the disk has no room for both forms at once. */
function needRoom(dataFolder: string, studies: number): void {
  if (studies === 0) return;
  const { size } = statSync(oneFile(dataFolder));
  if (roomIn(dataFolder) < size)
    throw new Error(
      `Each study gets a folder of its own, which needs ${formatCount(Math.ceil(size / 1024 ** 2))} MB of free room on the disk for a while. Nothing was changed.`,
    );
}

async function takeOne(dataFolder: string, id: string, old: SqliteDatabase.Database): Promise<void> {
  const whole = studyFolder(dataFolder, id);
  const part = `${whole}.part`;
  rmSync(part, { recursive: true, force: true });
  await prepareStudy(part);
  const store = connect(part);
  try {
    const { raw, query } = store;
    raw.prepare('attach ? as old').run(oneFile(dataFolder));
    raw.exec('begin immediate');
    await dropRowIndexes(query);
    const columns = (where: 'main' | 'old', table: string): string[] =>
      raw.prepare('select name from pragma_table_info(?, ?)').pluck().all(table, where) as string[];
    const copy = (from: string, to: string, which: string, values: readonly string[]): void => {
      // What is new since has its usual value.
      const before = columns('old', from);
      const names = columns('main', to)
        .filter((name) => before.includes(name))
        .map((name) => `"${name}"`);
      const sql = `insert into main.${to} (${names.join(', ')}) select ${names.join(', ')} from old.${from} where ${which}`;
      raw.prepare(sql).run(...values);
    };
    copy('study', 'study', 'id = ?', [id]);
    for (const table of OF_STUDIES) copy(table, table, 'study_id = ?', [id]);
    for (const table of PARKED)
      if (table !== 'message_hashtag') copy(table, `parked_${table}`, 'study_id = ?', [`~${id}`]);
    for (const [table, which] of BY_ANOTHER)
      copy(table, table, which, which.includes('?, ?') ? [id, `~${id}`] : [id]);
    // Hashtags of parked messages stood under negative numbers.
    raw
      .prepare(
        `insert into parked_message_hashtag (hashtag_id, message_id) select hashtag_id, -message_id from old.message_hashtag
          where message_id < 0 and -message_id in (select id from parked_message)`,
      )
      .run();
    for (const table of ['account', 'message', 'item'] as const) keepCounting(raw, table);
    await buildRowIndexes(query);
    raw.exec(
      `insert into message_text (rowid, text, subject) select id, text, subject from message
        union all select id, text, subject from parked_message`,
    );
    raw.exec('commit');
    raw.exec('detach old');
    raw.pragma('wal_checkpoint(truncate)');
  } finally {
    await store.close();
  }
  for (const [from, to] of filesOf(dataFolder, id, old)) linkInto(from, join(part, to));
  renameSync(part, whole);
}

/** A number that was given once is not given to anything else, also where it is parked. */
function keepCounting(raw: SqliteDatabase.Database, table: 'account' | 'message' | 'item'): void {
  const highest = raw
    .prepare(
      `select max(coalesce((select max(id) from ${table}), 0), coalesce((select max(id) from parked_${table}), 0))`,
    )
    .pluck()
    .get() as number;
  raw.prepare('delete from sqlite_sequence where name = ?').run(table);
  raw.prepare('insert into sqlite_sequence (name, seq) values (?, ?)').run(table, highest);
}

/** The files of a study, each with its place in the study's folder. */
function* filesOf(
  dataFolder: string,
  id: string,
  old: SqliteDatabase.Database,
): Generator<readonly [from: string, to: string]> {
  const namesIn = (folder: string): string[] => {
    const path = join(dataFolder, folder);
    return existsSync(path) ? readdirSync(path) : [];
  };
  const ids = (sql: string): (string | number)[] => old.prepare(sql).pluck().all(id) as (string | number)[];
  for (const network of ids('select id from network where study_id = ?'))
    for (const name of namesIn(`networks/${network}`))
      yield [join(dataFolder, 'networks', String(network), name), `networks/${network}/${name}`];
  const skipped = new Set(ids('select id from step where study_id = ?').map((step) => `skipped-${step}.csv`));
  const named = ids('select parameters from step where study_id = ?').join('\n');
  for (const name of namesIn('uploads'))
    if (
      name.startsWith(`${id}-`) ||
      skipped.has(name) ||
      (!name.startsWith('skipped-') && named.includes(name))
    )
      yield [join(dataFolder, 'uploads', name), `uploads/${name}`];
  const runs = new Set(ids('select id from collect_run where study_id = ?').map((run) => `${run}.jsonl`));
  for (const name of namesIn('collecting'))
    if (runs.has(name)) yield [join(dataFolder, 'collecting', name), `collecting/${name}`];
}

/** The same file under another name where the disk can do that; else a copy. */
function linkInto(from: string, to: string): void {
  mkdirSync(dirname(to), { recursive: true, mode: 0o700 });
  if (!statSync(from, { throwIfNoEntry: false })?.isFile()) return;
  try {
    linkSync(from, to);
  } catch {
    copyFileSync(from, to);
  }
}

/** What was kept for all studies. */
function takeShared(dataFolder: string): void {
  const catalogue = new SqliteDatabase(catalogueFile(dataFolder));
  try {
    catalogue.prepare('attach ? as old').run(oneFile(dataFolder));
    catalogue.exec(`insert or ignore into saved_reading (id, name, columns, reading) select id, name, columns, reading from old.saved_reading;
      insert or ignore into kept_look (name, look) select name, look from old.kept_look;
      detach old`);
  } finally {
    catalogue.close();
  }
  const secrets = join(dataFolder, 'collecting', 'secrets.json');
  if (existsSync(secrets)) renameSync(secrets, join(dataFolder, basename(secrets)));
}
