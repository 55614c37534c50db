import {
  MessageKind,
  type IncomingFollow,
  type IncomingItem,
  type IncomingMessage,
  type IncomingProfile,
  type Profile,
  type SkippedRow,
} from '@pebble/contract';
import { findRepostMark, findSpans, handleKey, hashtagKey, KIND_BIT, parentBit } from '@pebble/core';

/** A handle or hashtag that is named for the first time: as it is compared, and as it was written. */
export interface NewName {
  readonly key: string;
  readonly written: string;
}

/** An item, its channel by its number; -1 where it has none. */
export interface BatchItem extends Omit<IncomingItem, 'channelHandle' | 'channelName'> {
  readonly channel: number;
}

/** A profile, its account by its number. */
export interface BatchProfile {
  readonly row: number;
  readonly account: number;
  readonly handle: string;
  readonly profile: Profile;
  /** Whether it was told of a follower, who becomes an account of the study; other profiles are for accounts that are there. */
  readonly isFollower: boolean;
}

/**
 * Messages on their way from the thread that reads to the thread that stores, by column. Accounts and hashtags are numbered in
 * the order in which the file names them; a batch brings the names of the numbers that are new with it.
 */
export interface MessageBatch {
  readonly size: number;
  readonly key: readonly string[];
  readonly text: readonly string[];
  readonly subject: readonly (string | null)[];
  readonly parentKey: readonly (string | null)[];
  readonly link: readonly (string | null)[];
  readonly itemKey: readonly (string | null)[];
  /** JSON of numbers and attributes. */
  readonly more: readonly (string | null)[];
  /** Milliseconds since 1970; NaN when the message has no date. */
  readonly time: Float64Array;
  /** Place in `MessageKind.options`. */
  readonly kind: Uint8Array;
  readonly author: Int32Array;
  /** -1 where nobody is answered or passed on, or it is not known who. */
  readonly parentAuthor: Int32Array;
  /** Message i addresses `to[toStart[i]]` up to `to[toStart[i + 1] - 1]`; its author, with kinds 0, when it addresses nobody. */
  readonly toStart: Uint32Array;
  readonly to: Int32Array;
  readonly toKinds: Uint8Array;
  /** The different hashtags of message i, in the same way. */
  readonly tagStart: Uint32Array;
  readonly tag: Int32Array;
  /** Mentions, hashtags and links in each text, all of them counted. */
  readonly found: Uint32Array;
  readonly items: readonly BatchItem[];
  /** Follower and followed account of each tie, one after the other. */
  readonly follows: Int32Array;
  readonly profiles: readonly BatchProfile[];
  readonly newHandles: readonly NewName[];
  /** The first name that is given for an account, by the account's number. */
  readonly displayNames: readonly (readonly [number, string])[];
  readonly newTags: readonly NewName[];
  readonly skipped: readonly SkippedRow[];
  /** Rows read so far, and the share of the file. */
  readonly read: number;
  readonly share: number;
}

/** Numbers names in the order in which they come, and remembers which are new since it was last asked. */
class Names {
  private readonly byKey = new Map<string, number>();
  /** Spares making the key of a spelling again. */
  private readonly byWriting = new Map<string, number>();
  private fresh: NewName[] = [];

  constructor(private readonly keyOf: (written: string) => string) {}

  number(written: string): number {
    const known = this.byWriting.get(written);
    if (known !== undefined) return known;
    const key = this.keyOf(written);
    let number = this.byKey.get(key);
    if (number === undefined) {
      number = this.byKey.size;
      this.byKey.set(key, number);
      this.fresh.push({ key, written });
    }
    this.byWriting.set(written, number);
    return number;
  }

  takeNew(): NewName[] {
    const { fresh } = this;
    this.fresh = [];
    return fresh;
  }
}

const KIND_NUMBER = new Map(MessageKind.options.map((kind, i) => [kind, i]));

/** Collects messages with what their texts name, until they are taken away as a batch. */
export class Batcher {
  private readonly handles = new Names(handleKey);
  private readonly hashtags = new Names(hashtagKey);
  private columns = emptyColumns();
  private items: BatchItem[] = [];
  private follows: number[] = [];
  private profiles: BatchProfile[] = [];
  private skipped: SkippedRow[] = [];
  private displayNames: [number, string][] = [];
  private readonly named = new Set<number>();

  get size(): number {
    const { columns, items, follows, profiles, skipped } = this;
    return columns.key.length + items.length + follows.length / 2 + profiles.length + skipped.length;
  }

  skip(row: SkippedRow): void {
    this.skipped.push(row);
  }

  add(message: IncomingMessage): void {
    const { columns } = this;
    const author = this.handles.number(message.authorHandle);
    const parentAuthor = message.parentHandle ? this.handles.number(message.parentHandle) : -1;
    this.name(author, message.authorName);
    columns.key.push(message.key);
    columns.text.push(message.text);
    columns.subject.push(message.subject);
    columns.parentKey.push(message.parentKey);
    columns.link.push(message.link);
    columns.itemKey.push(message.itemKey);
    columns.more.push(moreOf(message));
    columns.time.push(message.time ?? NaN);
    columns.kind.push(KIND_NUMBER.get(message.kind)!);
    columns.author.push(author);
    columns.parentAuthor.push(parentAuthor);
    this.addFound(message, author, parentAuthor);
  }

  addItem({ channelHandle, channelName, ...item }: IncomingItem): void {
    const channel = channelHandle === null ? -1 : this.handles.number(channelHandle);
    if (channel >= 0) this.name(channel, channelName);
    this.items.push({ ...item, channel });
  }

  addFollow({ follower, followerName, followed, profile }: IncomingFollow): void {
    const from = this.handles.number(follower);
    this.name(from, followerName);
    this.follows.push(from, this.handles.number(followed));
    if (profile) this.profiles.push({ row: 0, account: from, handle: follower, profile, isFollower: true });
  }

  addProfile({ row, handle, name, profile }: IncomingProfile): void {
    const account = this.handles.number(handle);
    this.name(account, name);
    this.profiles.push({ row, account, handle, profile, isFollower: false });
  }

  /** Everything collected since the last call. */
  take(read: number, share: number): MessageBatch {
    const { columns, skipped, displayNames, items, follows, profiles } = this;
    this.columns = emptyColumns();
    this.items = [];
    this.follows = [];
    this.profiles = [];
    this.skipped = [];
    this.displayNames = [];
    const { time, kind, author, parentAuthor, toStart, to, toKinds, tagStart, tag, found, ...texts } =
      columns;
    return {
      ...texts,
      size: columns.key.length,
      time: Float64Array.from(time),
      kind: Uint8Array.from(kind),
      author: Int32Array.from(author),
      parentAuthor: Int32Array.from(parentAuthor),
      toStart: Uint32Array.from(toStart),
      to: Int32Array.from(to),
      toKinds: Uint8Array.from(toKinds),
      tagStart: Uint32Array.from(tagStart),
      tag: Int32Array.from(tag),
      found: Uint32Array.from(found),
      items,
      follows: Int32Array.from(follows),
      profiles,
      newHandles: this.handles.takeNew(),
      newTags: this.hashtags.takeNew(),
      displayNames,
      skipped,
      read,
      share,
    };
  }

  private name(account: number, name: string | null): void {
    if (name === null || this.named.has(account)) return;
    this.named.add(account);
    this.displayNames.push([account, name]);
  }

  private addFound(message: IncomingMessage, author: number, parentAuthor: number): void {
    const { to, toKinds, toStart, tag, tagStart, found } = this.columns;
    const firstTo = to.length;
    const firstTag = tag.length;
    const address = (account: number, bit: number): void => {
      const at = to.indexOf(account, firstTo);
      if (at >= 0) toKinds[at] |= bit;
      else {
        to.push(account);
        toKinds.push(bit);
      }
    };
    if (parentAuthor >= 0) address(parentAuthor, parentBit(message.kind));
    for (const { handle, name, how } of message.addressed) {
      const number = this.handles.number(handle);
      this.name(number, name);
      address(number, KIND_BIT[how]);
    }
    const addTag = (key: string): void => {
      const number = this.hashtags.number(key);
      if (tag.indexOf(number, firstTag) < 0) tag.push(number);
    };
    const counts = { mention: 0, hashtag: 0, link: 0, score: 0 };
    // Whom a repost passes on is named by its mark; that is no mention.
    const mark = message.kind === 'repost' ? findRepostMark(message.text) : null;
    for (const { what, key, start } of findSpans(message.text)) {
      if (what === 'mention' && mark && start < mark.end) continue;
      counts[what]++;
      if (what === 'mention') address(this.handles.number(wholeHandle(key, message)), KIND_BIT.mention);
      else if (what === 'hashtag') addTag(key);
    }
    for (const key of message.hashtags) addTag(key);
    if (to.length === firstTo) address(author, 0);
    found.push(counts.mention, counts.hashtag, counts.link);
    toStart.push(to.length);
    tagStart.push(tag.length);
  }
}

/** A text often names only the first part of an account that the message addresses as "name@host": they are one. */
function wholeHandle(key: string, { addressed }: IncomingMessage): string {
  if (addressed.length === 0 || key.includes('@')) return key;
  const start = `${key.toLowerCase()}@`;
  return addressed.find(({ handle }) => handle.toLowerCase().startsWith(start))?.handle ?? key;
}

function emptyColumns() {
  return {
    key: [] as string[],
    text: [] as string[],
    subject: [] as (string | null)[],
    parentKey: [] as (string | null)[],
    link: [] as (string | null)[],
    itemKey: [] as (string | null)[],
    more: [] as (string | null)[],
    time: [] as number[],
    kind: [] as number[],
    author: [] as number[],
    parentAuthor: [] as number[],
    toStart: [0],
    to: [] as number[],
    toKinds: [] as number[],
    tagStart: [0],
    tag: [] as number[],
    found: [] as number[],
  };
}

/** Numbers and attributes as JSON; null where there are none. */
export function moreOf({
  numbers,
  attributes,
}: Pick<IncomingMessage, 'numbers' | 'attributes'>): string | null {
  for (const _ in numbers) return JSON.stringify({ numbers, attributes });
  for (const _ in attributes) return JSON.stringify({ numbers, attributes });
  return null;
}
