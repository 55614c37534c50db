import type { InStepWeave, ThingKind } from '@pebble/contract';
import {
  findHashtags,
  findSpans,
  handleKey,
  hashtagKey,
  KIND_BIT,
  occurrencesWithin,
  type FollowRows,
  type ThreadOccurrences,
} from '@pebble/core';
import { contentWords, domainOf, linkKey, nameKey, sameText } from '@pebble/core/files';
import type { Store } from './open';
import { cachedByRevision } from './cachedByRevision';
import {
  accountLabels,
  condition,
  iterate,
  labels,
  namedBy,
  Names,
  Rows,
  texts,
  type NamedOccurrences,
  type OccurrenceScope,
} from './occurrenceRows';

/** Where things of a kind stand in the messages of a study. */
export function readOccurrences(store: Store, scope: OccurrenceScope, things: ThingKind): NamedOccurrences {
  switch (things) {
    case 'hashtag':
      return readHashtags(store, scope);
    case 'mention':
      return readMentions(store, scope);
    case 'name':
      return readNames(store, scope);
    case 'item':
    case 'channel':
      return readItems(store, scope, things);
    case 'domain':
    case 'link':
    case 'word':
      return rememberedTexts(store, scope, things, readTexts);
  }
}

function readHashtags(store: Store, scope: OccurrenceScope): NamedOccurrences {
  const rows = new Rows();
  const sql = `select mh.message_id, m.author_id, mh.hashtag_id, m.time from message_hashtag mh
    join message m on m.id = mh.message_id where ${condition(scope)} order by mh.message_id`;
  for (const [message, author, tag, time] of iterate(store, sql, scope)) rows.add(message, author, tag, time);
  const label = labels(store, 'select id, tag from hashtag');
  return {
    occurrences: rows.occurrences,
    labelOf: (thing) => `#${label.get(thing) ?? ''}`,
    keyOf: (thing) => hashtagKey(label.get(thing) ?? ''),
    typedKey: (typed) => hashtagKey(typed.replace(/^#/, '')),
  };
}

function readNames(store: Store, scope: OccurrenceScope): NamedOccurrences {
  const rows = new Rows();
  const sql = `select mn.message_id, m.author_id, mn.name_id, m.time from message_name mn
    join message m on m.id = mn.message_id where ${condition(scope)} order by mn.message_id`;
  for (const [message, author, name, time] of iterate(store, sql, scope))
    rows.add(message, author, name, time);
  const label = labels(store, 'select id, label from name');
  const key = labels(store, 'select id, name_key from name');
  return {
    occurrences: rows.occurrences,
    labelOf: (thing) => label.get(thing) ?? '',
    keyOf: (thing) => key.get(thing) ?? '',
    typedKey: nameKey,
  };
}

function readMentions(store: Store, scope: OccurrenceScope): NamedOccurrences {
  const rows = new Rows();
  const sql = `select d.message_id, d.from_id, d.to_id, d.time from address d join message m on m.id = d.message_id
    where d.kinds & ${KIND_BIT.mention} and ${condition(scope)} order by d.message_id`;
  for (const [message, author, account, time] of iterate(store, sql, scope))
    rows.add(message, author, account, time);
  const label = accountLabels(store);
  return {
    occurrences: rows.occurrences,
    labelOf: (thing) => label.get(thing) ?? '',
    keyOf: (thing) => handleKey(label.get(thing) ?? ''),
    typedKey: handleKey,
  };
}

/** A comment stands under its item; what its owner writes under it does not count. */
function readItems(store: Store, scope: OccurrenceScope, things: 'item' | 'channel'): NamedOccurrences {
  const rows = new Rows();
  const thing = things === 'item' ? 'i.id' : 'i.account_id';
  const sql = `select m.id, m.author_id, ${thing}, m.time from message m
    join item i on i.key = m.item_key
    where ${thing} is not null and (i.account_id is null or i.account_id <> m.author_id) and ${condition(scope)} order by m.id`;
  for (const [message, author, item, time] of iterate(store, sql, scope))
    rows.add(message, author, item, time);
  const label = things === 'item' ? labels(store, 'select id, title from item') : accountLabels(store);
  const plain = (text: string): string => text.trim().toLowerCase();
  return {
    occurrences: rows.occurrences,
    labelOf: (one) => label.get(one) ?? '',
    keyOf: (one) => plain(label.get(one) ?? ''),
    typedKey: plain,
  };
}

/** Where things stand, found by going through the texts of the whole time once; later readings only choose from it. */
export function rememberedTexts<K extends ThingKind>(
  store: Store,
  scope: OccurrenceScope,
  things: K,
  read: (store: Store, scope: OccurrenceScope, things: K) => NamedOccurrences,
): NamedOccurrences {
  const what = `${read.name} ${things} ${scope.reposts}`;
  const all = cachedByRevision(store, what, () => read(store, wholeTime(scope), things));
  return { ...all, occurrences: occurrencesWithin(all.occurrences, scope) };
}

function wholeTime(scope: OccurrenceScope): OccurrenceScope {
  return { ...scope, from: null, until: null };
}

/** What is found by going through the texts. */
function readTexts(
  store: Store,
  scope: OccurrenceScope,
  things: 'domain' | 'link' | 'word',
): NamedOccurrences {
  const rows = new Rows();
  const names = new Names();
  for (const { message, author, time, text, language } of texts(store, scope)) {
    const found = things === 'word' ? contentWords(text, language) : linksOf(text, things);
    for (const name of new Set(found)) rows.add(message, author, names.of(name), time);
  }
  const plain = (text: string): string => text.trim().toLowerCase();
  return {
    occurrences: rows.occurrences,
    labelOf: (thing) => names.labels[thing],
    keyOf: (thing) => plain(names.labels[thing]),
    typedKey: things === 'word' ? plain : (typed) => plain(linkKey(typed)),
  };
}

function linksOf(text: string, things: 'domain' | 'link'): string[] {
  return findSpans(text)
    .filter(({ what }) => what === 'link')
    .flatMap(({ key }) => (things === 'link' ? linkKey(key) : (domainOf(key) ?? [])));
}

/** What posts are compared by: each message has one text, its links, or its set of two or more hashtags. */
export function readSame(store: Store, scope: OccurrenceScope, same: InStepWeave['same']): NamedOccurrences {
  const read = (): NamedOccurrences => sameOfAll(store, wholeTime(scope), same);
  const all = cachedByRevision(store, `same ${same} ${scope.reposts}`, read);
  return { ...all, occurrences: occurrencesWithin(all.occurrences, scope) };
}

function sameOfAll(store: Store, scope: OccurrenceScope, same: InStepWeave['same']): NamedOccurrences {
  const rows = new Rows();
  const names = new Names();
  for (const { message, author, time, text } of texts(store, scope)) {
    for (const key of new Set(sameKeys(text, same))) rows.add(message, author, names.of(key), time);
  }
  return namedBy(rows, names);
}

function sameKeys(text: string, same: InStepWeave['same']): string[] {
  switch (same) {
    case 'text':
      return sameText(text) === '' ? [] : [sameText(text)];
    case 'link':
      return linksOf(text, 'link');
    case 'hashtags': {
      const tags = [...new Set(findHashtags(text).map(({ key }) => hashtagKey(key)))].sort();
      return tags.length < 2 ? [] : [tags.join(' ')];
    }
  }
}

/** The thread of each row's message: the first message of it that was collected, by its number. */
export function withThreads(store: Store, occurrences: ThreadOccurrences): ThreadOccurrences {
  const parentKey = new Map<number, string>();
  const idOf = new Map<string, number>();
  const all = store.raw.prepare('select id, key, parent_key from message').raw().iterate() as Iterable<
    [number, string, string | null]
  >;
  for (const [id, key, parent] of all) {
    idOf.set(key, id);
    if (parent !== null) parentKey.set(id, parent);
  }
  const rootOf = new Map<number, number>();
  const climb = (message: number): number => {
    const path: number[] = [];
    const seen = new Set<number>();
    let at = message;
    for (;;) {
      const known = rootOf.get(at);
      if (known !== undefined) {
        at = known;
        break;
      }
      path.push(at);
      seen.add(at);
      const key = parentKey.get(at);
      const parent = key === undefined ? undefined : idOf.get(key);
      if (parent === undefined) break;
      // Answers in a circle: the message with the smallest number stands for the thread.
      if (seen.has(parent)) {
        at = Math.min(...seen);
        break;
      }
      at = parent;
    }
    for (const id of path) rootOf.set(id, at);
    return at;
  };
  return { ...occurrences, thread: Float64Array.from(occurrences.message, climb) };
}

/** Who follows whom in a study, each pair once. */
export function readFollows(store: Store): FollowRows {
  return cachedByRevision(store, 'follows', () => readFollowRows(store));
}

function readFollowRows({ raw }: Store): FollowRows {
  const rows = raw.prepare('select distinct follower_id, followed_id from follow').raw().all() as [
    number,
    number,
  ][];
  return {
    follower: Uint32Array.from(rows, ([follower]) => follower),
    followed: Uint32Array.from(rows, ([, followed]) => followed),
  };
}
