import type SqliteDatabase from 'better-sqlite3';
import type { Kysely } from 'kysely';
import { basename } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { Damaged } from '../files/damage';
import { connect, type Store } from './open';
import type { Database } from './schema';

/** Milliseconds between two looks whether something is still asked. */
const SOON = 20;

/**
 * The connection of the thread that answers requests to one study. It is opened when it is needed, and can be let go when nobody has asked
 * for anything for a while: there may be hundreds of studies, and each open one holds files and memory.
 */
export class AnsweringStore implements Store {
  readonly study: string;
  private open: Store | null = null;
  private lastUsed = 0;
  private hasEnded = false;

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

  /** Closes it for good, once what was asked has its answer. */
  async end(): Promise<void> {
    this.hasEnded = true;
    while (this.isAsked()) await pause(SOON);
    await this.close();
  }

  async close(): Promise<void> {
    const { open } = this;
    this.open = null;
    await open?.close();
  }

  private used(): Store {
    if (this.hasEnded) throw new Damaged('This study is not there any more.');
    this.lastUsed = performance.now();
    return (this.open ??= connect(this.folder, 'answers'));
  }
}
