import type { Statement } from 'better-sqlite3';
import { MessageKind } from '@pebble/contract';
import { parentBit } from '@pebble/core';
import type { MessageBatch } from '../../intake/batch';
import type { Store } from '../open';
import { AccountIds } from './accountIds';
import { NameIds } from './nameIds';
import { RowInserter } from './rowInserter';
import { buildRowIndexes, dropRowIndexes } from './rowIndexes';

/** Messages that enter the full-text index in one statement: each statement writes out what the one before left in memory. */
const INDEXED_TOGETHER = 30_000;

/** What the loading of messages has counted so far. */
interface LoadCounts {
  kept: number;
  duplicates: number;
  duplicatesInFile: number;
  undated: number;
  mentions: number;
  hashtags: number;
  links: number;
  from: number | null;
  until: number | null;
}

/** Links between messages that only the database can make. */
export interface Unlinked {
  /** Messages of this load whose parent had not come before them; null where those of earlier loads have to be looked at too. */
  readonly orphans: readonly number[] | null;
  /** Whether there can be reposts without a text, which pass on whom their original names. */
  readonly emptyReposts: boolean;
}

/** Stores messages in bulk. Everything happens in the transaction that is open on the connection. */
export class MessageLoader {
  readonly counts: LoadCounts = {
    kept: 0,
    duplicates: 0,
    duplicatesInFile: 0,
    undated: 0,
    mentions: 0,
    hashtags: 0,
    links: 0,
    from: null,
    until: null,
  };
  readonly authors = new Set<number>();
  private readonly hashtags: NameIds;
  /** Who wrote the messages that this load brought, by their keys. */
  private readonly authorOf = new Map<string, number>();
  /** Messages whose parent had not come when they came. */
  private readonly orphans: number[] = [];
  private passesOnEmpty = false;
  /** Finds a message of before this load; null when the study had none. */
  private readonly older: Statement | null;
  private readonly firstNew: number;
  private next: number;
  private readonly messages: RowInserter<'message'>;
  private readonly addresses: RowInserter<'address'>;
  private readonly tags: RowInserter<'hashtag'>;
  private readonly messageTags: RowInserter<'message_hashtag'>;
  /** Adds messages from an id on to the full-text index. */
  private readonly addTexts: Statement;
  private firstUnindexed: number;

  constructor(
    private readonly store: Store,
    private readonly source: number,
    private readonly accounts: AccountIds,
  ) {
    this.hashtags = new NameIds(1 + highestTag(store), (id, { key, written }) =>
      this.tags.add(id, key, written),
    );
    this.firstNew = this.next = 1 + highest(store, 'message');
    this.messages = new RowInserter(store, 'message', [
      'id',
      'source_id',
      'key',
      'author_id',
      'time',
      'kind',
      'parent_key',
      'parent_author_id',
      'link',
      'subject',
      'text',
      'item_key',
      'more',
    ]);
    this.addresses = new RowInserter(store, 'address', ['message_id', 'to_id', 'from_id', 'kinds', 'time']);
    this.tags = new RowInserter(store, 'hashtag', ['id', 'tag_key', 'tag']);
    this.messageTags = new RowInserter(store, 'message_hashtag', ['message_id', 'hashtag_id']);
    const texts = store.query
      .selectFrom('message')
      .select(['id', 'text', 'subject'])
      .where('id', '>=', 0)
      .compile();
    this.firstUnindexed = this.firstNew;
    this.addTexts = store.raw.prepare(`insert into message_text (rowid, text, subject) ${texts.sql}`);
    this.knowHashtags();
    this.older = this.findOlder();
  }

  /**
   * To be called before the first batch. Where the load is larger than what is there, the indexes are taken away and built at
   * the end; a study that has messages keeps them, since they find its duplicates.
   */
  async begin(messagesAwaited: number): Promise<void> {
    if (this.older === null && messagesAwaited > this.firstNew) await dropRowIndexes(this.store.query);
  }

  /** Stores a batch; messages whose key is there already are counted and left out. */
  add(batch: MessageBatch): void {
    this.hashtags.expect(batch.newTags);
    for (let i = 0; i < batch.size; i++) {
      if (this.isNew(batch.key[i])) this.addMessage(batch, i);
    }
    this.tags.flush();
    this.messages.flush();
    this.addresses.flush();
    this.messageTags.flush();
    if (this.next - this.firstUnindexed >= INDEXED_TOGETHER) this.indexTexts();
  }

  /** To be called after the last batch. */
  async end(): Promise<void> {
    this.indexTexts();
    await buildRowIndexes(this.store.query);
  }

  private indexTexts(): void {
    this.addTexts.run(this.firstUnindexed);
    this.firstUnindexed = this.next;
  }

  /** What is left to be linked once everything is there. */
  get unlinked(): Unlinked {
    const isFirst = this.older === null;
    return { orphans: isFirst ? this.orphans : null, emptyReposts: this.passesOnEmpty || !isFirst };
  }

  private isNew(key: string): boolean {
    const isInFile = this.authorOf.has(key);
    if (!isInFile && this.older?.get(key) === undefined) return true;
    this.counts.duplicates++;
    if (isInFile) this.counts.duplicatesInFile++;
    return false;
  }

  private addMessage(batch: MessageBatch, i: number): void {
    const author = this.accounts.idOf(batch.author[i]);
    this.authors.add(author);
    const id = this.next++;
    const time = Number.isNaN(batch.time[i]) ? null : batch.time[i];
    const kind = MessageKind.options[batch.kind[i]];
    this.authorOf.set(batch.key[i], author);
    const parent = this.parentAuthor(batch, i, id);
    this.messages.add(
      id,
      this.source,
      batch.key[i],
      author,
      time,
      kind,
      batch.parentKey[i],
      parent,
      batch.link[i],
      batch.subject[i],
      batch.text[i],
      batch.itemKey[i],
      batch.more[i],
    );
    if (kind === 'repost' && batch.text[i] === '') this.passesOnEmpty = true;
    // Where the file itself says whom the message answers, it is among those whom it addresses.
    let answered = batch.parentAuthor[i] < 0 ? parent : null;
    for (let at = batch.toStart[i]; at < batch.toStart[i + 1]; at++) {
      const to = this.accounts.idOf(batch.to[at]);
      const isAnswered = to === answered;
      const kinds = batch.toKinds[at] | (isAnswered ? parentBit(kind) : 0);
      this.addresses.add(id, to, author, kinds, time);
      if (isAnswered) answered = null;
    }
    if (answered !== null) this.addresses.add(id, answered, author, parentBit(kind), time);
    for (let at = batch.tagStart[i]; at < batch.tagStart[i + 1]; at++)
      this.messageTags.add(id, this.hashtags.idOf(batch.tag[at]));
    this.count(batch.found, i, time);
  }

  /** Who wrote what a message answers or passes on; null where that is nothing, or has not come so far. */
  private parentAuthor(batch: MessageBatch, i: number, id: number): number | null {
    const key = batch.parentKey[i];
    const written = key === null ? undefined : this.authorOf.get(key);
    if (key !== null && written === undefined) this.orphans.push(id);
    return batch.parentAuthor[i] < 0 ? (written ?? null) : this.accounts.idOf(batch.parentAuthor[i]);
  }

  private count(found: Uint32Array, i: number, time: number | null): void {
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

  private knowHashtags(): void {
    const { query, raw } = this.store;
    const known = query.selectFrom('hashtag').select(['id', 'tag_key']).compile();
    for (const [id, key] of raw.prepare(known.sql).raw().iterate() as Iterable<[number, string]>)
      this.hashtags.know(key, id);
  }

  private findOlder(): Statement | null {
    const { query, raw } = this.store;
    const any = query.selectFrom('message').select('id').limit(1).compile();
    if (raw.prepare(any.sql).get(1) === undefined) return null;
    return raw.prepare(query.selectFrom('message').select('id').where('key', '=', '').compile().sql);
  }
}

/** The largest id that a table ever gave: what was taken out for good leaves none to be given again. 0 where it gave none. */
export function highest({ raw }: Store, table: 'account' | 'item' | 'message'): number {
  const row = raw.prepare('select seq from sqlite_sequence where name = ?').pluck().get(table);
  return (row as number | undefined) ?? 0;
}

function highestTag({ raw }: Store): number {
  return (raw.prepare('select max(id) from hashtag').pluck().get() as number | null) ?? 0;
}
