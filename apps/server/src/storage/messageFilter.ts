import type { MessageFilter } from '@pebble/contract';
import { handleKey, hashtagKey, Random } from '@pebble/core';
import { sql, type RawBuilder, type SqlBool } from 'kysely';
import { isAmong } from './lists';
import type { Store } from './open';
import { hasCode } from './codings';
import { scoreConditions } from './scores';
import { searchCondition } from './searching';

/** A condition for messages "m". */
export type Condition = RawBuilder<SqlBool>;

/** The conditions of a filter; where it asks for a sample, those that keep what was drawn with its seed. */
export function fitting(store: Store, filter: MessageFilter): Condition[] {
  const conditions = withinFilter(filter);
  if (filter.sample === undefined) return conditions;
  const ids = messageIds(store, conditions);
  const drawn = new Random(filter.seed ?? 1).sample(ids.length, filter.sample).map((i) => ids[i]);
  return [isAmong('m.id', drawn)];
}

/** The numbers of the messages that fit, ascending. */
export function messageIds({ query, raw }: Store, conditions: readonly Condition[]): number[] {
  const asked = query
    .selectFrom('message as m')
    .select('m.id')
    .where((e) => e.and([...conditions]))
    .orderBy('m.id')
    .compile();
  return raw
    .prepare(asked.sql)
    .pluck()
    .all(...(asked.parameters as (string | number)[])) as number[];
}

/** The conditions of a filter, without its sample. */
export function withinFilter(filter: MessageFilter): Condition[] {
  const conditions: Condition[] = [sql<SqlBool>`true`];
  if (filter.kind) conditions.push(sql<SqlBool>`m.kind = ${filter.kind}`);
  if (filter.source !== undefined) conditions.push(sql<SqlBool>`m.source_id = ${filter.source}`);
  if (filter.item) conditions.push(sql<SqlBool>`m.item_key = ${filter.item}`);
  if (filter.language)
    conditions.push(
      sql<SqlBool>`m.id in (select message_id from message_language where language = ${filter.language})`,
    );
  conditions.push(...scoreConditions(filter));
  if (filter.code) conditions.push(hasCode(filter.code));
  if (filter.marked)
    conditions.push(
      sql<SqlBool>`m.id in (select message_id from message_mark where ${filter.marked === 'starred' ? sql`starred = 1` : sql`note <> ''`})`,
    );
  if (filter.from !== undefined) conditions.push(sql<SqlBool>`m.time >= ${filter.from}`);
  if (filter.until !== undefined) conditions.push(sql<SqlBool>`m.time < ${filter.until}`);
  const account = (handle: string) => sql`(select id from account where handle_key = ${handleKey(handle)})`;
  if (filter.author) conditions.push(sql<SqlBool>`m.author_id = ${account(filter.author)}`);
  if (filter.mentions) {
    conditions.push(
      sql<SqlBool>`m.id in (select message_id from address where kinds & 2 and to_id = ${account(filter.mentions)})`,
    );
  }
  if (filter.hashtag) {
    const key = hashtagKey(filter.hashtag.replace(/^#/, ''));
    conditions.push(
      sql<SqlBool>`m.id in (select message_id from message_hashtag where hashtag_id = (select id from hashtag where tag_key = ${key}))`,
    );
  }
  const search = searchCondition(filter.text ?? '');
  if (search) conditions.push(search);
  return conditions;
}
