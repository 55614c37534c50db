import type { ItemPage, ItemQuery, ItemRow } from '@pebble/contract';
import { sql } from 'kysely';
import type { Store } from './open';

/** A page of the videos, pages and other items of a study, with the comments under them. */
export async function readItems(
  { query }: Store,
  { search, by, falling, offset, limit }: ItemQuery,
): Promise<ItemPage> {
  const like = `%${search.trim().replace(/[\\%_]/g, '\\$&')}%`;
  const fits = sql`(i.title like ${like} escape '\\' or coalesce(a.handle, '') like ${like} escape '\\')`;
  const items = sql`item i left join account a on a.id = i.account_id`;
  const { rows: totals } = await sql<{ n: number }>`select count(*) as n from ${items} where ${fits}`.execute(
    query,
  );
  const order = sql`${sql.ref(by)} ${sql.raw(falling === 'true' && by !== 'title' ? 'desc' : 'asc')}`;
  const { rows } = await sql<Row>`
    select i.key, i.title, a.handle as channel, i.time, i.link, i.more,
      coalesce(c.messages, 0) as messages, coalesce(c.authors, 0) as authors
    from ${items} left join (
      select item_key, count(*) as messages, count(distinct author_id) as authors
      from message where item_key is not null group by item_key) c on c.item_key = i.key
    where ${fits} order by ${order}, i.title limit ${limit} offset ${offset}`.execute(query);
  return {
    total: totals[0].n,
    items: rows.map(({ more, ...row }) => ({
      ...row,
      numbers: more ? (JSON.parse(more) as Pick<ItemRow, 'numbers'>).numbers : {},
    })),
  };
}

interface Row extends Omit<ItemRow, 'numbers'> {
  readonly more: string | null;
}
