import type { Statement } from 'better-sqlite3';
import type { IncomingMessage, TextSpan } from '@pebble/contract';
import { findSpans, handleKey, hashtagKey, KIND_BIT } from '@pebble/core';
import { sql } from 'kysely';
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
  readonly knownAccounts = new Set<number>();
  private readonly accounts = new Map<string, number>();
  /** Accounts by their handle as it is written; spares making the key again. */
  private readonly written = new Map<string, number>();
  private readonly hashtags = new Map<string, number>();
  private readonly named = new Set<number>();
  private readonly firstNewAccount: number;
  private readonly firstNewMessage: number;
  private nextAccount: number;
  private nextHashtag: number;
  private nextMessage: number;
  private readonly insert: Record<
    'account' | 'hashtag' | 'message' | 'address' | 'messageHashtag',
    Statement
  >;
  private readonly nameAccount: Statement;
  private readonly messageByKey: Statement;

  constructor(
    private readonly store: Store,
    private readonly study: string,
    private readonly source: number,
  ) {
    this.nextAccount = 1 + this.highest('account');
    this.nextHashtag = 1 + this.highest('hashtag');
    this.nextMessage = 1 + this.highest('message');
    this.firstNewAccount = this.nextAccount;
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
      address: prepare(
        query
          .insertInto('address')
          .values({ study_id: '', message_id: 0, to_id: 0, from_id: 0, kinds: 0, time: 0 })
          .compile(),
      ),
      messageHashtag: prepare(
        query.insertInto('message_hashtag').values({ message_id: 0, hashtag_id: 0 }).compile(),
      ),
    };
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

  /** Stores one message; a message whose key is there already is counted and left out. */
  add(message: IncomingMessage): void {
    const author = this.accountId(message.authorHandle, message.authorName);
    const parentAuthor = message.parentHandle ? this.accountId(message.parentHandle, null) : null;
    const id = this.nextMessage;
    const more = moreOf(message);
    const { changes } = this.insert.message.run(
      id,
      this.study,
      this.source,
      message.key,
      author,
      message.time,
      message.kind,
      message.parentKey,
      parentAuthor,
      message.link,
      message.text,
      more,
    );
    if (changes === 0) {
      this.countDuplicate(message.key);
      return;
    }
    this.nextMessage++;
    this.authors.add(author);
    const spans = findSpans(message.text);
    this.count(message, spans);
    this.address(message, spans, id, author, parentAuthor);
    this.tag(spans, id);
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
    for (const row of raw.prepare(accounts.sql).iterate(this.study) as Iterable<{
      id: number;
      handle_key: string;
      name: string | null;
    }>) {
      this.accounts.set(row.handle_key, row.id);
      if (row.name !== null) this.named.add(row.id);
    }
    const hashtags = query
      .selectFrom('hashtag')
      .select(['id', 'tag_key'])
      .where('study_id', '=', '')
      .compile();
    for (const row of raw.prepare(hashtags.sql).iterate(this.study) as Iterable<{
      id: number;
      tag_key: string;
    }>) {
      this.hashtags.set(row.tag_key, row.id);
    }
  }

  private accountId(handle: string, name: string | null): number {
    let id = this.written.get(handle);
    const key = id === undefined ? handleKey(handle) : '';
    id ??= this.accounts.get(key);
    if (id === undefined) {
      id = this.nextAccount++;
      this.accounts.set(key, id);
      this.insert.account.run(id, this.study, key, handle, name);
      this.counts.accountsNew++;
      if (name !== null) this.named.add(id);
    } else {
      if (id < this.firstNewAccount) this.knownAccounts.add(id);
      if (name !== null && !this.named.has(id)) {
        this.nameAccount.run(name, id);
        this.named.add(id);
      }
    }
    this.written.set(handle, id);
    return id;
  }

  private countDuplicate(key: string): void {
    const { id } = this.messageByKey.get(this.study, key) as { id: number };
    if (id >= this.firstNewMessage) this.counts.duplicatesInFile++;
    this.counts.duplicates++;
  }

  private count({ time }: IncomingMessage, spans: readonly TextSpan[]): void {
    const { counts } = this;
    counts.kept++;
    if (time === null) counts.undated++;
    else {
      if (counts.from === null || time < counts.from) counts.from = time;
      if (counts.until === null || time > counts.until) counts.until = time;
    }
    for (const { what } of spans) {
      if (what === 'link') counts.links++;
      else if (what === 'mention') counts.mentions++;
      else counts.hashtags++;
    }
  }

  private address(
    message: IncomingMessage,
    spans: readonly TextSpan[],
    id: number,
    author: number,
    parentAuthor: number | null,
  ): void {
    const to = new Map<number, number>([[author, 0]]);
    const mark = (account: number, bit: number): void => void to.set(account, (to.get(account) ?? 0) | bit);
    if (parentAuthor !== null)
      mark(parentAuthor, message.kind === 'repost' ? KIND_BIT.repost : KIND_BIT.reply);
    for (const span of spans) {
      if (span.what === 'mention') mark(this.accountId(span.key, null), KIND_BIT.mention);
    }
    for (const [account, kinds] of to)
      this.insert.address.run(this.study, id, account, author, kinds, message.time);
  }

  private tag(spans: readonly TextSpan[], id: number): void {
    const seen = new Set<number>();
    for (const span of spans) {
      if (span.what !== 'hashtag') continue;
      const key = hashtagKey(span.key);
      let tag = this.hashtags.get(key);
      if (tag === undefined) {
        tag = this.nextHashtag++;
        this.hashtags.set(key, tag);
        this.insert.hashtag.run(tag, this.study, key, span.key);
      }
      if (seen.has(tag)) continue;
      seen.add(tag);
      this.insert.messageHashtag.run(id, tag);
    }
  }
}

function moreOf({ numbers, attributes }: IncomingMessage): string | null {
  for (const _ in numbers) return JSON.stringify({ numbers, attributes });
  for (const _ in attributes) return JSON.stringify({ numbers, attributes });
  return null;
}
