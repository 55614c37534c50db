import type SqliteDatabase from 'better-sqlite3';
import type { Kysely } from 'kysely';
import { basename } from 'node:path';
import { connect, type Store } from './open';
import type { Database } from './schema';

/**
 * The connection of the thread that answers requests to one study. It is opened when it is needed, and can be let go when nobody has asked
 * for anything for a while: there may be hundreds of studies, and each open one holds files and memory.
 */
export class AnsweringStore implements Store {
  readonly study: string;
  private open: Store | null = null;
  private lastUsed = 0;

  constructor(readonly folder: string) {
    this.study = basename(folder);
  }

  get query(): Kysely<Database> {
    return this.used().query;
  }

  get raw(): SqliteDatabase.Database {
    return this.used().raw;
  }

  /** Closes it where it was not used for so many milliseconds. */
  async letGo(idle: number, now = performance.now()): Promise<void> {
    if (this.open && !this.open.isAsked() && now - this.lastUsed >= idle) await this.close();
  }

  isAsked(): boolean {
    return this.open?.isAsked() ?? false;
  }

  async close(): Promise<void> {
    const { open } = this;
    this.open = null;
    await open?.close();
  }

  private used(): Store {
    this.lastUsed = performance.now();
    return (this.open ??= connect(this.folder, 'answers'));
  }
}
