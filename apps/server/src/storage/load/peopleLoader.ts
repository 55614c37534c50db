import type { Statement } from 'better-sqlite3';
import { moreOf, type MessageBatch } from '../../intake/batch';
import type { SkippedRows } from '../../intake/skippedRows';
import type { Store } from '../open';
import type { AccountIds } from './accountIds';
import { highest } from './messageLoader';
import { RowInserter } from './rowInserter';

/** Stores items, who follows whom, and profiles. Everything happens in the transaction that is open on the connection. */
export class PeopleLoader {
  readonly counts = { items: 0, itemsAgain: 0, follows: 0, followsAgain: 0, profiles: 0 };
  private nextItem: number;
  private readonly items: RowInserter<'item'>;
  private readonly follows: RowInserter<'follow'>;
  private readonly profiles: RowInserter<'profile'>;
  private readonly findItem: Statement;
  private readonly fillItem: Statement;
  private readonly knownItems = new Map<string, boolean>();
  private readonly followed = new Set<number>();
  private readonly findFollow: Statement;
  private readonly profiled = new Set<number>();

  constructor(
    store: Store,
    private readonly source: number,
    private readonly accounts: AccountIds,
    private readonly skipped: SkippedRows,
  ) {
    const { query, raw } = store;
    this.nextItem = 1 + highest(store, 'item');
    this.items = new RowInserter(store, 'item', [
      'id',
      'source_id',
      'key',
      'title',
      'account_id',
      'time',
      'link',
      'text',
      'more',
    ]);
    this.follows = new RowInserter(store, 'follow', ['followed_id', 'follower_id', 'source_id']);
    this.profiles = new RowInserter(store, 'profile', ['account_id', 'source_id', 'profile']);
    this.findItem = raw.prepare(
      query.selectFrom('item').select(['id', 'account_id', 'time']).where('key', '=', '').compile().sql,
    );
    this.fillItem = raw.prepare(
      query
        .updateTable('item')
        .set({ title: '', account_id: 0, time: 0, link: '', text: '', more: '' })
        .where('id', '=', 0)
        .compile().sql,
    );
    this.findFollow = raw.prepare(
      query
        .selectFrom('follow')
        .select('source_id')
        .where('followed_id', '=', 0)
        .where('follower_id', '=', 0)
        .limit(1)
        .compile().sql,
    );
  }

  add(batch: MessageBatch): void {
    for (const item of batch.items) this.addItem(item);
    const { follows } = batch;
    for (let at = 0; at < follows.length; at += 2) this.addFollow(follows[at], follows[at + 1]);
    this.items.flush();
    this.follows.flush();
    for (const profile of batch.profiles) this.addProfile(profile);
    this.profiles.flush();
  }

  private addItem(item: MessageBatch['items'][number]): void {
    const account = item.channel < 0 ? null : this.accounts.idOf(item.channel);
    const tellsMore = account !== null || item.time !== null || item.text !== '';
    // Whether what is there of the item is more than a title that a comment told.
    let known = this.knownItems.get(item.key);
    if (known === undefined) {
      const there = this.findItem.get(item.key) as ItemRow | undefined;
      known = there === undefined ? undefined : there.account_id !== null || there.time !== null;
    }
    const more = moreOf(item);
    if (known === undefined) {
      this.items.add(
        this.nextItem++,
        this.source,
        item.key,
        item.title,
        account,
        item.time,
        item.link,
        item.text,
        more,
      );
      this.counts.items++;
      this.knownItems.set(item.key, tellsMore);
      return;
    }
    this.counts.itemsAgain++;
    if (known || !tellsMore) return;
    this.items.flush();
    const { id } = this.findItem.get(item.key) as ItemRow;
    this.fillItem.run(item.title, account, item.time, item.link, item.text, more, id);
    this.knownItems.set(item.key, true);
  }

  private addFollow(followerNumber: number, followedNumber: number): void {
    const follower = this.accounts.idOf(followerNumber);
    const followed = this.accounts.idOf(followedNumber);
    const pair = followed * 2 ** 26 + follower;
    if (this.followed.has(pair)) {
      this.counts.followsAgain++;
      return;
    }
    this.followed.add(pair);
    if (this.findFollow.get(followed, follower, 1) !== undefined) this.counts.followsAgain++;
    else this.counts.follows++;
    this.follows.add(followed, follower, this.source);
  }

  private addProfile({ row, account, handle, profile, isFollower }: MessageBatch['profiles'][number]): void {
    const id = isFollower ? this.accounts.idOf(account) : this.accounts.idIfKnown(account);
    if (id === 0) {
      this.skipped.add({ row, field: null, reason: `No account of the study has the handle “${handle}”.` });
      return;
    }
    if (this.profiled.has(id)) {
      if (!isFollower)
        this.skipped.add({
          row,
          field: null,
          reason: `The account “${handle}” stands twice; its first row was taken.`,
        });
      return;
    }
    this.profiled.add(id);
    this.counts.profiles++;
    this.profiles.add(id, this.source, JSON.stringify(profile));
  }
}

interface ItemRow {
  readonly id: number;
  readonly account_id: number | null;
  readonly time: number | null;
}
