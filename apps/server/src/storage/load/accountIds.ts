import type { Statement } from 'better-sqlite3';
import type { NewName } from '../../intake/batch';
import type { Store } from '../open';
import { NameIds } from './nameIds';
import { RowInserter } from './rowInserter';

/** The accounts of a study while messages are loaded. New ones wait until `flush`, so that their names can still come. */
export class AccountIds {
  /** Accounts that were not there before. */
  added = 0;
  private readonly ids: NameIds;
  private readonly named = new Set<number>();
  /** Names of accounts that no message has needed so far. */
  private readonly unplaced = new Map<number, string>();
  private readonly waiting = new Map<number, NewName & { name: string | null }>();
  private readonly rows: RowInserter<'account'>;
  private readonly rename: Statement;

  constructor(store: Store, firstNew: number) {
    const { query, raw } = store;
    this.rows = new RowInserter(store, 'account', ['id', 'handle_key', 'handle', 'name']);
    this.rename = raw.prepare(
      query.updateTable('account').set({ name: '' }).where('id', '=', 0).compile().sql,
    );
    this.ids = new NameIds(firstNew, (id, name) => {
      this.waiting.set(id, { ...name, name: null });
      this.added++;
    });
    const known = query.selectFrom('account').select(['id', 'handle_key', 'name']);
    for (const [id, key, name] of raw.prepare(known.compile().sql).raw().iterate() as Iterable<
      [number, string, string | null]
    >) {
      this.ids.know(key, id);
      if (name !== null) this.named.add(id);
    }
  }

  /** Accounts of before this load that it names too. */
  get known(): number {
    return this.ids.known;
  }

  expect(names: readonly NewName[]): void {
    this.ids.expect(names);
  }

  idOf(number: number): number {
    return this.ids.idOf(number);
  }

  /** The id of an account that is in the study; 0 for any other. */
  idIfKnown(number: number): number {
    return this.ids.idIfKnown(number);
  }

  /** Names for accounts by their numbers; an account keeps the first name that is given for it. */
  expectNames(names: readonly (readonly [number, string])[]): void {
    for (const [number, name] of names) this.unplaced.set(number, name);
  }

  flush(): void {
    for (const [number, name] of this.unplaced) {
      const id = this.ids.idIfKnown(number);
      if (id === 0) continue;
      this.unplaced.delete(number);
      this.giveName(id, name);
    }
    for (const [id, { key, written, name }] of this.waiting) this.rows.add(id, key, written, name);
    this.waiting.clear();
    this.rows.flush();
  }

  private giveName(account: number, name: string): void {
    if (this.named.has(account)) return;
    this.named.add(account);
    const fresh = this.waiting.get(account);
    if (fresh) fresh.name = name;
    else this.rename.run(name, account);
  }
}
