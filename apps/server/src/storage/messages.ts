import {
  ADDRESS_KINDS,
  MessageKind,
  MessageLanguage,
  type Message,
  type MessageOverview,
  type MessagePage,
  type MessageQuery,
} from '@pebble/contract';
import { findSpans, KIND_BIT } from '@pebble/core';
import { sql } from 'kysely';
import { isAmong } from './lists';
import type { Store } from './open';
import { fitting } from './messageFilter';
import { scorersOf, withScores } from './scores';

/** A page of the reading list, in the order of time; undated messages come last. */
export async function readMessages(
  store: Store,
  { offset, limit, ...filter }: MessageQuery,
): Promise<MessagePage> {
  const conditions = fitting(store, filter);
  const total = await store.query
    .selectFrom('message as m')
    .select((e) => e.fn.countAll<number>().as('count'))
    .where((e) => e.and(conditions))
    .executeTakeFirstOrThrow();
  const rows = await messageRows(store)
    .where((e) => e.and(conditions))
    .orderBy(sql`m.time is null`)
    .orderBy('m.time')
    .orderBy('m.id')
    .offset(offset)
    .limit(limit)
    .execute();
  return {
    total: total.count,
    offset,
    messages: await withScores(store, await withReceivers(store, rows.map(toMessage)), filter.scored),
  };
}

/** Messages by their ids, in the order of the ids. */
export async function readMessagesById(store: Store, ids: readonly number[]): Promise<Message[]> {
  if (ids.length === 0) return [];
  const rows = await messageRows(store).where(isAmong('m.id', ids)).execute();
  const found = await withScores(store, await withReceivers(store, rows.map(toMessage)));
  const byId = new Map(found.map((message) => [message.id, message]));
  return ids.flatMap((id) => byId.get(id) ?? []);
}

/** The highest number of a message; 0 where there is none. */
export function lastMessage({ raw }: Pick<Store, 'raw'>): number {
  return (raw.prepare('select max(id) from message').pluck().get() as number | null) ?? 0;
}

export async function readOverview(store: Store): Promise<MessageOverview> {
  const { query } = store;
  const whole = await query
    .selectFrom('message')
    .select((e) => [
      e.fn.countAll<number>().as('messages'),
      e.fn.min('time').as('first'),
      e.fn.max('time').as('last'),
      // One pass over the index; grouped by kind it would be sorted first.
      ...MessageKind.options.map((kind) => sql<number>`count(*) filter (where kind = ${kind})`.as(kind)),
    ])
    .executeTakeFirstOrThrow();
  const accounts = await query
    .selectFrom('account')
    .select((e) => e.fn.countAll<number>().as('count'))
    .executeTakeFirstOrThrow();
  // Counted from the index of authors alone.
  const ofAuthors = query
    .selectFrom('message')
    .select((e) => ['author_id', e.fn.countAll<number>().as('messages')])
    .groupBy('author_id');
  const authors = await query
    .selectFrom(ofAuthors.as('m'))
    .innerJoin('account as a', 'a.id', 'm.author_id')
    .select(['a.id', 'a.handle', 'a.name', 'm.messages'])
    .orderBy('messages', 'desc')
    .orderBy('a.handle')
    .limit(30)
    .execute();
  const { rows: kindBits } = await sql<{ bits: number }>`
    select distinct kinds as bits from address`.execute(query);
  const languages = await query
    .selectFrom('message as m')
    .innerJoin('message_language as l', 'l.message_id', 'm.id')
    .select((e) => ['l.language as code', e.fn.countAll<number>().as('messages')])
    .groupBy('l.language')
    .orderBy('messages', 'desc')
    .orderBy('l.language')
    .execute();
  const count = async (table: 'item' | 'follow' | 'name'): Promise<number> => {
    const { n } = await query
      .selectFrom(table)
      .select((e) => e.fn.countAll<number>().as('n'))
      .executeTakeFirstOrThrow();
    return n;
  };
  const bits = kindBits.reduce((all, row) => all | row.bits, 0);
  return {
    messages: whole.messages,
    accounts: accounts.count,
    from: whole.first,
    until: whole.last,
    kinds: MessageKind.options
      .map((kind) => ({ kind, messages: whole[kind] }))
      .filter(({ messages }) => messages > 0)
      .sort((a, b) => b.messages - a.messages),
    languages,
    items: await count('item'),
    follows: await count('follow'),
    names: await count('name'),
    scorers: await scorersOf(store),
    addressKinds: ADDRESS_KINDS.filter((kind) => bits & KIND_BIT[kind]),
    hashtags: await mostUsedHashtags(store),
    authors,
  };
}

/** The 30 hashtags that stand in most messages. */
async function mostUsedHashtags({ query, raw }: Store): Promise<MessageOverview['hashtags']> {
  const tags = await query.selectFrom('hashtag').select(['id', 'tag']).execute();
  const messages = new Map(tags.map(({ id }) => [id, 0]));
  // Counted here: the database would sort all uses first, or look up the hashtag of each.
  const uses = query.selectFrom('message_hashtag').select('hashtag_id').compile();
  for (const id of raw.prepare(uses.sql).pluck().iterate() as Iterable<number>) {
    const before = messages.get(id);
    if (before !== undefined) messages.set(id, before + 1);
  }
  return tags
    .map(({ id, tag }) => ({ tag, messages: messages.get(id)! }))
    .filter((one) => one.messages > 0)
    .sort((a, b) => b.messages - a.messages || (a.tag < b.tag ? -1 : 1))
    .slice(0, 30);
}

function messageRows({ query }: Store) {
  return query
    .selectFrom('message as m')
    .innerJoin('account as a', 'a.id', 'm.author_id')
    .innerJoin('source as s', 's.id', 'm.source_id')
    .leftJoin('account as pa', 'pa.id', 'm.parent_author_id')
    .leftJoin('message as p', (join) => join.onRef('p.key', '=', 'm.parent_key'))
    .leftJoin('item as i', (join) => join.onRef('i.key', '=', 'm.item_key'))
    .leftJoin('message_language as l', 'l.message_id', 'm.id')
    .leftJoin('message_mark as k', 'k.message_id', 'm.id')
    .select([
      'm.id',
      'm.key',
      's.name as source',
      'm.author_id',
      'a.handle',
      'a.name',
      'm.subject',
      'm.text',
      'm.time',
      'm.kind',
      'm.link',
      'm.more',
      'm.parent_key',
      'p.id as parent_id',
      'pa.handle as parent_handle',
      'm.item_key',
      'i.title as item_title',
      'l.language',
      'l.how as language_how',
      'k.starred',
      'k.note',
    ]);
}

type MessageRow = Awaited<ReturnType<ReturnType<typeof messageRows>['execute']>>[number];

function toMessage(row: MessageRow): Message {
  const more = (row.more ? JSON.parse(row.more) : {}) as Partial<Pick<Message, 'numbers' | 'attributes'>>;
  const hasParent = row.parent_key !== null || row.parent_handle !== null;
  return {
    id: row.id,
    key: row.key,
    source: row.source,
    author: { id: row.author_id, handle: row.handle, name: row.name },
    subject: row.subject,
    text: row.text,
    spans: findSpans(row.text),
    time: row.time,
    kind: row.kind as MessageKind,
    parent: hasParent ? { id: row.parent_id, key: row.parent_key ?? '', handle: row.parent_handle } : null,
    addressed: [],
    link: row.link,
    item: row.item_key === null ? null : { key: row.item_key, title: row.item_title },
    language:
      row.language === null ? null : MessageLanguage.parse({ code: row.language, how: row.language_how }),
    starred: row.starred === 1,
    note: row.note || null,
    scores: [],
    numbers: more.numbers ?? {},
    attributes: more.attributes ?? {},
  };
}

/** Adds to emails whom they are sent to. */
async function withReceivers(store: Store, messages: readonly Message[]): Promise<Message[]> {
  const emails = messages.filter(({ kind }) => kind === 'email').map(({ id }) => id);
  if (emails.length === 0) return [...messages];
  const { rows } = await sql<{ message: number; handle: string; name: string | null; kinds: number }>`
    select d.message_id as message, a.handle, a.name, d.kinds from message m
      join address d on d.message_id = m.id join account a on a.id = d.to_id
    where ${isAmong('m.id', emails)} order by d.message_id, a.handle`.execute(store.query);
  return messages.map((message) => ({
    ...message,
    addressed: rows.flatMap((row) => {
      if (row.message !== message.id) return [];
      const hows = (['to', 'cc', 'bcc'] as const).filter((how) => row.kinds & KIND_BIT[how]);
      return hows.map((how) => ({ handle: row.handle, name: row.name, how }));
    }),
  }));
}
