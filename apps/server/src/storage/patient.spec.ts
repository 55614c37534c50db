import SqliteDatabase from 'better-sqlite3';
import { Kysely } from 'kysely';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { isBusy, PatientDialect } from './patient';

describe('PatientDialect', () => {
  let folder: string;
  let writer: SqliteDatabase.Database;
  const opened: Kysely<{ t: { a: number } }>[] = [];
  const answers = (longest?: number): Kysely<{ t: { a: number } }> => {
    const database = new SqliteDatabase(join(folder, 'a.sqlite'), { timeout: 0 });
    const query = new Kysely<{ t: { a: number } }>({ dialect: new PatientDialect({ database }, longest) });
    opened.push(query);
    return query;
  };
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'pebble-patient-'));
    writer = new SqliteDatabase(join(folder, 'a.sqlite'));
    writer.pragma('journal_mode = WAL');
    writer.exec('CREATE TABLE t (a INTEGER)');
  });
  afterEach(async () => {
    for (const query of opened.splice(0)) await query.destroy();
    writer.close();
    rmSync(folder, { recursive: true, force: true });
  });

  it('waits while another writes, answers readers meanwhile, and blocks nothing', async () => {
    const query = answers();
    writer.exec('BEGIN IMMEDIATE; INSERT INTO t VALUES (1)');
    let beats = 0;
    const heart = setInterval(() => beats++, 10);
    const written = query.insertInto('t').values({ a: 2 }).execute();
    setTimeout(() => writer.exec('COMMIT'), 400);
    expect(await query.selectFrom('t').selectAll().execute()).toEqual([]);
    await written;
    clearInterval(heart);
    expect(beats).toBeGreaterThan(15);
    expect(await query.selectFrom('t').selectAll().execute()).toEqual([{ a: 1 }, { a: 2 }]);
  });

  it('gives up at last, and throws other errors at once', async () => {
    writer.exec('BEGIN IMMEDIATE');
    const error: unknown = await answers(100)
      .insertInto('t')
      .values({ a: 2 })
      .execute()
      .catch((e: unknown) => e);
    expect(isBusy(error)).toBe(true);
    writer.exec('ROLLBACK');
    await expect(
      answers()
        .selectFrom('nothing' as 't')
        .selectAll()
        .execute(),
    ).rejects.toMatchObject({ message: expect.stringContaining('no such table') as string });
    await expect(
      answers()
        .transaction()
        .execute(() => Promise.resolve()),
    ).rejects.toThrow('single statements');
  });
});
