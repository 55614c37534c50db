import SqliteDatabase from 'better-sqlite3';
import type { StepKind } from '@pebble/contract';
import type { Progress } from '../threads/progress';
import { buildRowIndexes, dropRowIndexes } from './load/rowIndexes';
import { MIGRATIONS } from './migrations';
import { studyFile, type Store } from './open';

/** The form of the tables of this version. */
export const TABLES = Object.keys(MIGRATIONS).at(-1)!;

/** Pages of the database that are copied between two looks whether it is cancelled. */
const TOGETHER = 2000;

/**
 * Copies the database of a study as it was committed last, by SQLite's own backup. In the copy no step is running, nothing is to follow, and
 * collecting runs that had not ended are paused, so that they are not asked for twice; for the same reason routines do not run by themselves.
 */
export async function copyDatabase(folder: string, target: string, progress: Progress): Promise<void> {
  const source = new SqliteDatabase(studyFile(folder), { readonly: true });
  try {
    await source.backup(target, {
      progress: ({ totalPages, remainingPages }) => {
        progress('Copying the database', totalPages > 0 ? 1 - remainingPages / totalPages : null);
        return TOGETHER;
      },
    });
  } finally {
    source.close();
  }
  changeCopy(target, (copy) => {
    copy.pragma('secure_delete = ON');
    copy.exec(`delete from step where state = 'running'; delete from follow_up; delete from staged_file;
      update collect_run set state = 'paused', wait_until = null, error = 'The study was copied while this run was at work. Resume it where it is to go on.'
        where state in ('running', 'waiting', 'storing');
      update routine_run set state = 'interrupted' where state in ('running', 'waiting');
      update standing_routine set is_on = 0, next_at = null, waits_for = null`);
    copy.pragma('journal_mode = DELETE');
  });
}

/** Makes of a copy the beginning of another study. */
export function beginDuplicate(database: string, name: string, now: string): void {
  changeCopy(database, (copy) => {
    const before = copy.prepare('select name from study').pluck().get() as string;
    copy.prepare('update study set name = ?, created_at = ?, changed_at = ?').run(name, now, now);
    copy
      .prepare(
        `insert into step (kind, state, parameters, result, sentence, started_at, ended_at, duration)
          values ('duplicate-study', 'done', ?, '{}', ?, ?, ?, 0)`,
      )
      .run(JSON.stringify({ name }), `The study was begun as a duplicate of “${before}”.`, now, now);
  });
}

/** Writes into a copy that a step is done that is still at work in the study itself. */
export function noteStep(
  database: string,
  { id, kind, sentence, now }: { id: number; kind: StepKind; sentence: string; now: string },
): void {
  changeCopy(database, (copy) => {
    copy
      .prepare(
        `insert into step (id, kind, state, parameters, result, sentence, started_at, ended_at, duration)
          values (?, ?, 'done', '{}', '{}', ?, ?, ?, 0)`,
      )
      .run(id, kind, sentence, now, now);
  });
}

/** What a manifest says of a copy. */
export function aboutCopy(database: string): { name: string; messages: number; lastStep: number } {
  return changeCopy(database, (copy) => ({
    name: copy.prepare('select name from study').pluck().get() as string,
    messages: copy.prepare('select count(*) from message').pluck().get() as number,
    lastStep: (copy.prepare('select max(id) from step').pluck().get() as number | null) ?? 0,
  }));
}

function changeCopy<T>(database: string, work: (copy: SqliteDatabase.Database) => T): T {
  const copy = new SqliteDatabase(database);
  try {
    return work(copy);
  } finally {
    copy.close();
  }
}

/** A database that is no study of this version, in words. */
export class NoStudy extends Error {}

/**
 * Takes the rows of another study's database into one that is new and empty, table by table: of the other one nothing is used but rows of the
 * columns that are known, whatever else is in it. Everything happens in the transaction that is open on the connection.
 */
export async function takeRows(store: Store, path: string, progress: Progress): Promise<void> {
  const { raw, query } = store;
  const other = new SqliteDatabase(path, { readonly: true });
  try {
    other.pragma('trusted_schema = OFF');
    if (other.pragma('quick_check', { simple: true }) !== 'ok') throw new NoStudy('Its database is damaged.');
    const tables = raw
      .prepare(
        `select name from sqlite_master where type = 'table' and name not like 'message_text%' and name not like 'sqlite_%'
          and name not like 'kysely_%' and name not in ('follow_up', 'staged_file')`,
      )
      .pluck()
      .all() as string[];
    await dropRowIndexes(query);
    for (const [i, table] of tables.entries()) {
      progress('Taking it in', i / (tables.length + 1));
      takeTable(raw, other, table);
    }
    keepCounting(raw, other);
    progress('Indexing', tables.length / (tables.length + 1));
    await buildRowIndexes(query);
    raw.exec(`insert into message_text (rowid, text, subject) select id, text, subject from message
      union all select id, text, subject from parked_message`);
  } catch (error) {
    if ((error as { code?: string }).code?.startsWith('SQLITE_'))
      throw new NoStudy('Its database is not one of a study, or damaged.');
    throw error;
  } finally {
    other.close();
  }
}

function takeTable(raw: SqliteDatabase.Database, other: SqliteDatabase.Database, table: string): void {
  const columns = (raw.prepare('select name from pragma_table_info(?)').pluck().all(table) as string[]).map(
    (name) => `"${name}"`,
  );
  // A view could stand in the place of a table.
  const is = other.prepare('select type from sqlite_master where name = ?').pluck().get(table);
  if (is !== 'table') throw new NoStudy(`Its database has no table “${table}”.`);
  const insert = raw.prepare(
    `insert into "${table}" (${columns.join(', ')}) values (${columns.map(() => '?').join(', ')})`,
  );
  const rows = other
    .prepare(`select ${columns.join(', ')} from "${table}"`)
    .raw()
    .iterate();
  for (const row of rows as Iterable<unknown[]>) insert.run(row);
}

/** No number is given twice, also those of what was removed for good. */
function keepCounting(raw: SqliteDatabase.Database, other: SqliteDatabase.Database): void {
  const counted = other.prepare('select name, seq from sqlite_sequence').raw().all() as [string, number][];
  for (const [name, seq] of counted) {
    const known = raw.prepare('select seq from sqlite_sequence where name = ?').pluck().get(name) as
      number | undefined;
    if (known === undefined)
      raw.prepare('insert into sqlite_sequence (name, seq) values (?, ?)').run(name, seq);
    else raw.prepare('update sqlite_sequence set seq = ? where name = ?').run(Math.max(known, seq), name);
  }
}
