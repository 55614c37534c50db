import type { MessageFilter } from '@pebble/contract';
import { KIND_BIT } from '@pebble/core';
import { sql } from 'kysely';
import { isAmong } from './lists';
import { fitting } from './messageFilter';
import type { Store } from './open';
import { furtherColumns, isoTime, renamed, type Row, type Rows } from './tableRows';

/** Messages that are read together. */
const TOGETHER = 1000;

/** Names by which the application reads such a file again. */
const COLUMNS = [
  'id',
  'author',
  'author name',
  'time',
  'kind',
  'subject',
  'text',
  'in reply to',
  'in reply to author',
  'to',
  'link',
  'item',
  'language',
  'source',
  'starred',
  'note',
] as const;

/** The ways in which an email is sent to somebody. */
const BY_MAIL = KIND_BIT.to | KIND_BIT.cc | KIND_BIT.bcc;

interface MessageRow {
  readonly number: number;
  readonly id: string;
  readonly author: string;
  readonly author_name: string | null;
  readonly time: number | null;
  readonly kind: string;
  readonly subject: string | null;
  readonly text: string;
  readonly parent: string | null;
  readonly parent_author: string | null;
  readonly receivers: string | null;
  readonly link: string | null;
  readonly item: string | null;
  readonly language: string | null;
  readonly source: string;
  readonly starred: number | null;
  readonly note: string | null;
  readonly more: string | null;
}

interface More {
  readonly numbers?: Readonly<Record<string, number>>;
  readonly attributes?: Readonly<Record<string, string>>;
}

/** The messages that fit a filter in the order of time, undated ones last, read part by part; and their columns. */
export function exportedMessages(store: Store, filter: MessageFilter): Rows {
  const ids = inOrder(store, filter);
  const names = furtherColumns(COLUMNS, furtherNames(store, ids));
  return { columns: [...COLUMNS, ...names.values()], rows: read(store, ids, names) };
}

function inOrder(store: Store, filter: MessageFilter): number[] {
  const asked = store.query
    .selectFrom('message as m')
    .select('m.id')
    .where((e) => e.and(fitting(store, filter)))
    .orderBy(sql`m.time is null`)
    .orderBy('m.time')
    .orderBy('m.id')
    .compile();
  return store.raw
    .prepare(asked.sql)
    .pluck()
    .all(...(asked.parameters as (string | number)[])) as number[];
}

/** What the messages tell beside what all messages have. */
function furtherNames(store: Store, ids: readonly number[]): Set<string> {
  const names = new Set<string>();
  for (const rows of parts(ids)) {
    const asked = store.query
      .selectFrom('message as m')
      .select('m.more')
      .where('m.more', 'is not', null)
      .where(isAmong('m.id', rows))
      .compile();
    for (const more of store.raw
      .prepare(asked.sql)
      .pluck()
      .iterate(...(asked.parameters as string[])) as Iterable<string>)
      for (const name of Object.keys(furtherOf(more))) names.add(name);
  }
  return names;
}

function* read(store: Store, ids: readonly number[], names: ReadonlyMap<string, string>): Generator<Row> {
  for (const part of parts(ids)) {
    const asked = sql<MessageRow>`
      select m.id as number, m.key as id, a.handle as author, a.name as author_name, m.time, m.kind, m.subject, m.text,
        m.parent_key as parent, pa.handle as parent_author,
        (select group_concat(r.handle, ' ') from address d join account r on r.id = d.to_id
          where m.kind = 'email' and d.message_id = m.id and d.kinds & ${BY_MAIL}) as receivers,
        m.link, m.item_key as item, l.language, s.name as source, k.starred, k.note, m.more
      from message m join account a on a.id = m.author_id join source s on s.id = m.source_id
        left join account pa on pa.id = m.parent_author_id
        left join message_language l on l.message_id = m.id left join message_mark k on k.message_id = m.id
      where ${isAmong('m.id', part)}`.compile(store.query);
    const rows = store.raw.prepare(asked.sql).all(...(asked.parameters as string[])) as MessageRow[];
    const byId = new Map(rows.map((row) => [row.number, row]));
    for (const id of part) {
      const row = byId.get(id);
      if (row) yield { ...plain(row), ...renamed(furtherOf(row.more), names) };
    }
  }
}

function plain(row: MessageRow): Row {
  return {
    id: row.id,
    author: row.author,
    'author name': row.author_name,
    time: isoTime(row.time),
    kind: row.kind,
    subject: row.subject,
    text: row.text,
    'in reply to': row.parent,
    'in reply to author': row.parent_author,
    to: row.receivers,
    link: row.link,
    item: row.item,
    language: row.language === 'und' ? null : row.language,
    source: row.source,
    starred: row.starred === 1 ? 'yes' : null,
    note: row.note,
  };
}

function furtherOf(more: string | null): Row {
  if (more === null) return {};
  const { numbers, attributes } = JSON.parse(more) as More;
  return { ...numbers, ...attributes };
}

function* parts(ids: readonly number[]): Generator<readonly number[]> {
  for (let from = 0; from < ids.length; from += TOGETHER) yield ids.slice(from, from + TOGETHER);
}
