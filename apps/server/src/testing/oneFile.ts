import SqliteDatabase from 'better-sqlite3';
import { Kysely, SqliteDialect } from 'kysely';
import { cpSync, existsSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { catalogueFile } from '../storage/catalogue';
import { migrateOneFile } from '../storage/oneFile/migrations';
import { oneFile } from '../storage/oneFile/takeApart';
import { studyFile } from '../storage/open';
import { PARKED } from '../storage/schema';

/** Makes of a data folder, while nothing uses it, one of the form before: all studies in one file, with the files of all beside it. */
export async function intoOneFile(dataFolder: string): Promise<void> {
  const db = new SqliteDatabase(oneFile(dataFolder));
  const query = new Kysely<unknown>({ dialect: new SqliteDialect({ database: db }) });
  await migrateOneFile(query);
  const studies = join(dataFolder, 'studies');
  for (const id of readdirSync(studies)) {
    const folder = join(studies, id);
    db.prepare('attach ? as now').run(studyFile(folder));
    const tables = db
      .prepare(
        `select name from now.sqlite_master where type = 'table' and name not like '%\\_fts%' escape '\\'`,
      )
      .pluck()
      .all() as string[];
    for (const table of tables) takeTable(db, table, id);
    db.exec('detach now');
    for (const part of ['networks', 'uploads', 'collecting'])
      cpSync(join(folder, part), join(dataFolder, part), { recursive: true });
  }
  db.exec(`insert into message_text (message_text) values ('rebuild')`);
  db.prepare('attach ? as shared').run(catalogueFile(dataFolder));
  db.exec(`insert into main.kept_look select name, look from shared.kept_look;
    insert into main.saved_reading select id, name, columns, reading from shared.saved_reading; detach shared`);
  await query.destroy();
  const secrets = join(dataFolder, 'secrets.json');
  if (existsSync(secrets)) renameSync(secrets, join(dataFolder, 'collecting', 'secrets.json'));
  rmSync(studies, { recursive: true });
  for (const end of ['', '-wal', '-shm']) rmSync(`${catalogueFile(dataFolder)}${end}`, { force: true });
}

function takeTable(db: SqliteDatabase.Database, table: string, study: string): void {
  const to = table.replace(/^parked_/, '');
  const isParked = to !== table;
  const names = (of: string): string[] => db.prepare(`select name from ${of}`).pluck().all() as string[];
  const there = names(`pragma_table_info('${to}', 'main')`);
  const columns = names(`pragma_table_info('${table}', 'now')`).filter((name) => there.includes(name));
  // Tables of SQLite itself, and those of the full-text index.
  if (columns.length === 0 || table.startsWith('sqlite_') || table.startsWith('message_text')) return;
  if (table.startsWith('kysely_') || (isParked && !(PARKED as readonly string[]).includes(to))) return;
  const given = columns.map((name) =>
    isParked && to === 'message_hashtag' && name === 'message_id' ? '-message_id' : `"${name}"`,
  );
  const into = columns.map((name) => `"${name}"`);
  if (there.includes('study_id')) {
    into.push('study_id');
    given.push(`'${isParked ? '~' : ''}${study}'`);
  }
  if (to === 'study') {
    into.push('id');
    given.push(`'${study}'`);
  }
  db.exec(`insert into main.${to} (${into.join(', ')}) select ${given.join(', ')} from now.${table}`);
}
