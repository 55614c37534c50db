import type { Statement } from 'better-sqlite3';
import { MessageKind } from '@pebble/contract';
import { KIND_BIT } from '@pebble/core';
import { sql } from 'kysely';
import type { MessageBatch, NewName } from '../intake/batch';
import { RowInserter } from './insertRows';
import { ROW_INDEXES } from './migrations';
import type { Store } from './open';

/** What the loading of messages has counted so far. */
export interface LoadCounts {
  kept: number;
  duplicates: number;
  duplicatesInFile: number;
  undated: number;
  accountsNew: number;
  mentions: number;
  hashtags: number;
  links: number;
  from: number | null;
  until: number | null;
}

/**
 * Stores messages in bulk: statements are compiled by Kysely once and run prepared. Accounts and hashtags of the study are held in
 * memory by key. Everything happens in the transaction that is open on the connection.
 */
export class MessageLoader {
  readonly counts: LoadCounts = {
    kept: 0,
    duplicates: 0,
    duplicatesInFile: 0,
    undated: 0,
    accountsNew: 0,
    mentions: 0,
    hashtags: 0,
    links: 0,
    from: null,
    until: null,
  };
  readonly authors = new Set<number>();
  private readonly accounts: NameIds;
  private readonly hashtags: NameIds;
  private readonly named = new Set<number>();
  private readonly firstNewMessage: number;
  private nextMessage: number;
  private readonly insert: Record<'account' | 'hashtag' | 'message', Statement>;
  private readonly addresses: RowInserter;
  private readonly messageHashtags: RowInserter;
  private readonly nameAccount: Statement;
  private readonly messageByKey: Statement;

  constructor(
    private readonly store: Store,
    private readonly study: string,
    private readonly source: number,
  ) {
    this.accounts = new NameIds(1 + this.highest('account'), (id, { key, written }) => {
      this.insert.account.run(id, study, key, written, null);
      this.counts.accountsNew++;
    });
    this.hashtags = new NameIds(
      1 + this.highest('hashtag'),
      (id, { key, written }) => void this.insert.hashtag.run(id, study, key, written),
    );
    this.nextMessage = 1 + this.highest('message');
    this.firstNewMessage = this.nextMessage;
    const { query } = store;
    const prepare = (compiled: { sql: string }): Statement => store.raw.prepare(compiled.sql);
    this.insert = {
      account: prepare(
        query
          .insertInto('account')
          .values({ id: 0, study_id: '', handle_key: '', handle: '', name: '' })
          .compile(),
      ),
      hashtag: prepare(
        query.insertInto('hashtag').values({ id: 0, study_id: '', tag_key: '', tag: '' }).compile(),
      ),
      message: prepare(
        query
          .insertInto('message')
          .orIgnore()
          .values({
            id: 0,
            study_id: '',
            source_id: 0,
            key: '',
            author_id: 0,
            time: 0,
            kind: '',
            parent_key: '',
            parent_author_id: 0,
            link: '',
            text: '',
            more: '',
          })
          .compile(),
      ),
    };
    const address = { study_id: '', message_id: 0, to_id: 0, from_id: 0, kinds: 0, time: 0 };
    this.addresses = new RowInserter(store, 6, (rows) =>
      query
        .insertInto('address')
        .values(Array.from({ length: rows }, () => address))
        .compile(),
    );
    this.messageHashtags = new RowInserter(store, 2, (rows) =>
      query
        .insertInto('message_hashtag')
        .values(Array.from({ length: rows }, () => ({ message_id: 0, hashtag_id: 0 })))
        .compile(),
    );
    this.nameAccount = prepare(
      query.updateTable('account').set({ name: '' }).where('id', '=', 0).where('name', 'is', null).compile(),
    );
    this.messageByKey = prepare(
      query.selectFrom('message').select('id').where('study_id', '=', '').where('key', '=', '').compile(),
    );
    this.loadKnown();
  }

  /** Messages of all studies before this load. */
  get messagesBefore(): number {
    return this.firstNewMessage - 1;
  }

  /** Stores a batch; messages whose key is there already are counted and left out. */
  add(batch: MessageBatch): void {
    this.accounts.expect(batch.newHandles);
    this.hashtags.expect(batch.newTags);
    for (let i = 0; i < batch.size; i++) this.addMessage(batch, i);
    this.addresses.flush();
    this.messageHashtags.flush();
  }

  /**
   * Before a load that is larger than what is there: takes away the indexes that are quicker to build at once than row by
   * row. `indexRows` brings them back; both happen in the transaction of the step.
   */
  async dropRowIndexes(): Promise<void> {
    for (const { name } of ROW_INDEXES) await this.store.query.schema.dropIndex(name).ifExists().execute();
  }

  async indexRows(): Promise<void> {
    for (const { name, columns } of ROW_INDEXES) {
      await this.store.query.schema
        .createIndex(name)
        .ifNotExists()
        .on('message')
        .columns([...columns])
        .execute();
    }
  }

  /** Adds the new messages to the full-text index, in one statement. */
  indexTexts(): void {
    const { query, raw } = this.store;
    const rows = query.selectFrom('message').select(['id', 'text']).where('id', '>=', 0).compile();
    raw.prepare(`insert into message_text (rowid, text) ${rows.sql}`).run(this.firstNewMessage);
  }

  /**
   * Fills in who is answered or reposted where only the parent's key was given and the parent is there now, also for messages
   * of earlier imports; and whom an empty repost passes on. Returns how many parents are still missing.
   */
  async linkParents(): Promise<number> {
    const { query } = this.store;
    await sql`
      update message set parent_author_id = p.author_id from message p
      where message.study_id = ${this.study} and message.parent_author_id is null and message.parent_key is not null
        and p.study_id = message.study_id and p.key = message.parent_key`.execute(query);
    await sql`
      insert into address (study_id, message_id, to_id, from_id, kinds, time)
      select m.study_id, m.id, m.parent_author_id, m.author_id,
        case m.kind when 'repost' then ${KIND_BIT.repost} else ${KIND_BIT.reply} end, m.time
      from message m where m.study_id = ${this.study} and m.parent_author_id is not null and m.parent_key is not null
        and not exists (select 1 from address a where a.study_id = m.study_id and a.message_id = m.id and a.kinds & ${KIND_BIT.reply | KIND_BIT.repost})
      on conflict do update set kinds = kinds | excluded.kinds`.execute(query);
    await sql`
      insert into address (study_id, message_id, to_id, from_id, kinds, time)
      select m.study_id, m.id, a.to_id, m.author_id, ${KIND_BIT.mention}, m.time
      from message m join message p on p.study_id = m.study_id and p.key = m.parent_key
        join address a on a.study_id = m.study_id and a.message_id = p.id and a.kinds & ${KIND_BIT.mention}
      where m.study_id = ${this.study} and m.kind = 'repost' and m.text = ''
      on conflict do update set kinds = kinds | excluded.kinds`.execute(query);
    const missing = await query
      .selectFrom('message as m')
      .select((e) => e.fn.countAll<number>().as('count'))
      .where('m.study_id', '=', this.study)
      .where('m.source_id', '=', this.source)
      .where('m.parent_key', 'is not', null)
      .where((e) =>
        e.not(
          e.exists(
            e
              .selectFrom('message as p')
              .select('p.id')
              .whereRef('p.study_id', '=', 'm.study_id')
              .whereRef('p.key', '=', 'm.parent_key'),
          ),
        ),
      )
      .executeTakeFirstOrThrow();
    return missing.count;
  }

  /** Accounts of the study that the load names, and that were there before it. */
  get knownAccounts(): number {
    return this.accounts.known;
  }

  private highest(table: 'account' | 'hashtag' | 'message'): number {
    const compiled = this.store.query
      .selectFrom(table)
      .select((e) => e.fn.max('id').as('id'))
      .compile();
    const row = this.store.raw.prepare(compiled.sql).get() as { id: number | null };
    return row.id ?? 0;
  }

  private loadKnown(): void {
    const { query, raw } = this.store;
    const accounts = query
      .selectFrom('account')
      .select(['id', 'handle_key', 'name'])
      .where('study_id', '=', '')
      .compile();
    for (const [id, key, name] of raw.prepare(accounts.sql).raw().iterate(this.study) as Iterable<
      [number, string, string | null]
    >) {
      this.accounts.know(key, id);
      if (name !== null) this.named.add(id);
    }
    const hashtags = query
      .selectFrom('hashtag')
      .select(['id', 'tag_key'])
      .where('study_id', '=', '')
      .compile();
    for (const [id, key] of raw.prepare(hashtags.sql).raw().iterate(this.study) as Iterable<
      [number, string]
    >)
      this.hashtags.know(key, id);
  }

  private addMessage(batch: MessageBatch, i: number): void {
    const author = this.accounts.idOf(batch.author[i]);
    this.giveName(author, batch.authorName[i]);
    const parentAuthor = batch.parentAuthor[i] < 0 ? null : this.accounts.idOf(batch.parentAuthor[i]);
    const id = this.nextMessage;
    const time = Number.isNaN(batch.time[i]) ? null : batch.time[i];
    const { changes } = this.insert.message.run(
      id,
      this.study,
      this.source,
      batch.key[i],
      author,
      time,
      MessageKind.options[batch.kind[i]],
      batch.parentKey[i],
      parentAuthor,
      batch.link[i],
      batch.text[i],
      batch.more[i],
    );
    if (changes === 0) {
      this.countDuplicate(batch.key[i]);
      return;
    }
    this.nextMessage++;
    this.authors.add(author);
    this.count(batch, i, time);
    for (let at = batch.toStart[i]; at < batch.toStart[i + 1]; at++)
      this.addresses.add(this.study, id, this.accounts.idOf(batch.to[at]), author, batch.toKinds[at], time);
    for (let at = batch.tagStart[i]; at < batch.tagStart[i + 1]; at++)
      this.messageHashtags.add(id, this.hashtags.idOf(batch.tag[at]));
  }

  /** An account keeps the first name that is given for it. */
  private giveName(account: number, name: string | null): void {
    if (name === null || this.named.has(account)) return;
    this.nameAccount.run(name, account);
    this.named.add(account);
  }

  private countDuplicate(key: string): void {
    const { id } = this.messageByKey.get(this.study, key) as { id: number };
    if (id >= this.firstNewMessage) this.counts.duplicatesInFile++;
    this.counts.duplicates++;
  }

  private count({ found }: MessageBatch, i: number, time: number | null): void {
    const { counts } = this;
    counts.kept++;
    if (time === null) counts.undated++;
    else {
      if (counts.from === null || time < counts.from) counts.from = time;
      if (counts.until === null || time > counts.until) counts.until = time;
    }
    counts.mentions += found[3 * i];
    counts.hashtags += found[3 * i + 1];
    counts.links += found[3 * i + 2];
  }
}

/** The ids of named things: those the study has, and those that a file brings under numbers of its own. */
class NameIds {
  private readonly byKey = new Map<string, number>();
  private readonly names: NewName[] = [];
  /** By number of the file; 0 until it is needed. */
  private readonly ids: number[] = [];
  private next: number;

  /** @param store keeps a thing that is needed for the first time */
  constructor(
    private readonly firstNew: number,
    private readonly store: (id: number, name: NewName) => void,
  ) {
    this.next = firstNew;
  }

  /** Things of before this load that it names too. */
  get known(): number {
    return this.ids.filter((id) => id > 0 && id < this.firstNew).length;
  }

  know(key: string, id: number): void {
    this.byKey.set(key, id);
  }

  expect(names: readonly NewName[]): void {
    for (const name of names) {
      this.names.push(name);
      this.ids.push(0);
    }
  }

  idOf(number: number): number {
    const id = this.ids[number];
    return id !== 0 ? id : this.find(number);
  }

  private find(number: number): number {
    const name = this.names[number];
    const known = this.byKey.get(name.key);
    const id = known ?? this.next++;
    this.ids[number] = id;
    if (known === undefined) {
      this.byKey.set(name.key, id);
      this.store(id, name);
    }
    return id;
  }
}
