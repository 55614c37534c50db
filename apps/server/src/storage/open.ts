import SqliteDatabase from 'better-sqlite3';
import { Kysely, SqliteDialect } from 'kysely';
import { mkdirSync, rmSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { migrate } from './migrations';
import { PatientDialect } from './patient';
import type { Database } from './schema';

/** One connection to the database of a study: Kysely for queries, the bare handle for bulk work and transactions of a whole step. */
export interface Store {
  readonly query: Kysely<Database>;
  readonly raw: SqliteDatabase.Database;
  /** The folder of the study. */
  readonly folder: string;
  /** The id of the study. */
  readonly study: string;
  /** Whether something that was asked waits for its answer. */
  isAsked(): boolean;
  close(): Promise<void>;
}

/** Where the folder of a study lies in a data folder. */
export const studyFolder = (dataFolder: string, study: string): string => join(dataFolder, 'studies', study);

/** The data folder in which a study lies. */
export const dataFolderOf = ({ folder }: Pick<Store, 'folder'>): string => dirname(dirname(folder));

export const studyFile = (folder: string): string => join(folder, 'study.sqlite');

/** Makes what the folder of a study holds, where it is not there, and brings its tables up to date. Throws where they cannot be read. */
export async function prepareStudy(folder: string): Promise<void> {
  for (const part of ['networks', 'uploads', 'collecting'])
    mkdirSync(join(folder, part), { recursive: true, mode: 0o700 });
  // Files that were written to be sent when the application ended.
  for (const part of ['exports', 'saved']) rmSync(join(folder, part), { recursive: true, force: true });
  const store = connect(folder);
  try {
    await migrate(store.query);
  } finally {
    await store.close();
  }
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

/** Who uses a connection: a step, which waits in its thread until it may write; or the thread that answers requests, which must never stand still. */
export type User = 'step' | 'answers';

/** Opens a file of SQLite as every one of them is opened here. */
export function openFile<D>(
  path: string,
  by: User = 'step',
): Pick<Store, 'raw' | 'isAsked'> & { readonly query: Kysely<D> } {
  // Where another connection is just closed, the file is locked for a moment.
  const raw = new SqliteDatabase(path, { timeout: 10_000 });
  raw.pragma('journal_mode = WAL');
  raw.pragma('synchronous = NORMAL');
  raw.pragma('foreign_keys = OFF');
  // What is deleted is written over.
  raw.pragma('secure_delete = ON');
  raw.pragma(`busy_timeout = ${by === 'step' ? 10_000 : 0}`);
  raw.pragma(`cache_size = ${-SMALL_CACHE}`);
  raw.pragma('temp_store = MEMORY');
  if (by === 'step')
    return {
      query: new Kysely<D>({ dialect: new SqliteDialect({ database: raw }) }),
      raw,
      isAsked: () => false,
    };
  const dialect = new PatientDialect({ database: raw });
  return { query: new Kysely<D>({ dialect }), raw, isAsked: () => dialect.asked > 0 };
}

/** A connection to the folder of a study that is up to date. */
export function connect(folder: string, by: User = 'step'): Store {
  const file = openFile<Database>(studyFile(folder), by);
  return { ...file, folder, study: basename(folder), close: () => closeFile(file) };
}

/** Closes a file, also where it was used by its bare handle alone, of which Kysely knows nothing. */
export async function closeFile({
  query,
  raw,
}: Pick<Store, 'raw'> & { query: { destroy(): Promise<void> } }): Promise<void> {
  await query.destroy();
  if (raw.open) raw.close();
}
