import SqliteDatabase from 'better-sqlite3';
import { Kysely, SqliteDialect } from 'kysely';
import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { migrate } from './migrations';
import { PatientDialect } from './patient';
import type { Database } from './schema';

/** One connection: Kysely for queries, the bare handle for bulk work and transactions of a whole step. */
export interface Store {
  readonly query: Kysely<Database>;
  readonly raw: SqliteDatabase.Database;
  readonly folder: string;
  close(): Promise<void>;
}

/** Opens the data folder, makes it when it is new, and brings its tables up to date. */
export async function openStore(folder: string): Promise<Store> {
  mkdirSync(join(folder, 'networks'), { recursive: true });
  mkdirSync(join(folder, 'uploads'), { recursive: true });
  mkdirSync(join(folder, 'collecting'), { recursive: true });
  // Files that were written to be sent when the application ended.
  rmSync(join(folder, 'exports'), { recursive: true, force: true });
  const first = connect(folder);
  await migrate(first.query);
  await first.close();
  return connect(folder, 'answers');
}

/** Kilobytes of the database that a connection keeps in memory; the system keeps what is read often for all of them. */
const SMALL_CACHE = 8 * 1024;
const LARGE_CACHE = 64 * 1024;

/** Gives a connection more memory for as long as it does something large. */
export async function withLargeCache<T>({ raw }: Store, work: () => Promise<T>): Promise<T> {
  raw.pragma(`cache_size = ${-LARGE_CACHE}`);
  try {
    return await work();
  } finally {
    raw.pragma(`cache_size = ${-SMALL_CACHE}`);
    raw.pragma('shrink_memory');
  }
}

/**
 * Another connection to a data folder that is up to date.
 * @param by a step, which waits in its thread until it may write; or the thread that answers requests, which must never stand still
 */
export function connect(folder: string, by: 'step' | 'answers' = 'step'): Store {
  const raw = new SqliteDatabase(join(folder, 'pebble.sqlite'));
  raw.pragma('journal_mode = WAL');
  raw.pragma('synchronous = NORMAL');
  raw.pragma('foreign_keys = OFF');
  raw.pragma(`busy_timeout = ${by === 'step' ? 10_000 : 0}`);
  raw.pragma(`cache_size = ${-SMALL_CACHE}`);
  raw.pragma('temp_store = MEMORY');
  const Dialect = by === 'step' ? SqliteDialect : PatientDialect;
  const query = new Kysely<Database>({ dialect: new Dialect({ database: raw }) });
  return { query, raw, folder, close: () => query.destroy() };
}
