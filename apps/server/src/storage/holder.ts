import SqliteDatabase from 'better-sqlite3';
import { join } from 'node:path';

/** The data folder belongs to another application that runs. */
export class FolderInUse extends Error {}

/** A folder that is held; nobody else opens it until it is released, or the process ends in any way. */
interface Held {
  release(): void;
}

/**
 * Holds a data folder for this application: two on one folder would write over each other's files. The lock is SQLite's own on a file of its
 * own, which the system takes back when the process is killed. Throws FolderInUse, which says who has it.
 */
export function holdFolder(folder: string, now = new Date()): Held {
  const file = new SqliteDatabase(join(folder, 'in-use.sqlite'), { timeout: 0 });
  try {
    file.exec('CREATE TABLE IF NOT EXISTS holder (process INTEGER, since TEXT)');
    file.exec('BEGIN IMMEDIATE');
  } catch (error) {
    const who = holderOf(file);
    file.close();
    if (!isLocked(error)) throw error;
    throw new FolderInUse(
      `The data folder ${folder} is in use by another Pebble Thread${who}. End that one, or choose another folder with PEBBLE_DATA.`,
    );
  }
  // Who holds it is written first, and the lock taken again at once: what is not written yet nobody else can read.
  file.exec('DELETE FROM holder');
  file.prepare('INSERT INTO holder VALUES (?, ?)').run(process.pid, now.toISOString());
  file.exec('COMMIT');
  file.exec('BEGIN IMMEDIATE');
  return {
    release: () => {
      file.exec('ROLLBACK');
      file.close();
    },
  };
}

/** " (process 4711, since 2026-03-01 10:00 UTC)" */
function holderOf(file: SqliteDatabase.Database): string {
  try {
    const row = file.prepare('SELECT process, since FROM holder').get() as
      { process: number; since: string } | undefined;
    return row ? ` (process ${row.process}, since ${row.since.slice(0, 16).replace('T', ' ')} UTC)` : '';
  } catch {
    return '';
  }
}

function isLocked(error: unknown): boolean {
  return String((error as { code?: unknown }).code).startsWith('SQLITE_BUSY');
}
