import { sql, type RawBuilder } from 'kysely';
import type { Store } from './open';

/**
 * Takes the messages of a source out: their rows wait in tables beside, so that everything that reads the study passes them by, and they can
 * be taken back. Accounts that nothing names any more go with them. Returns the number of messages.
 */
export async function parkSource(store: Store, source: number): Promise<number> {
  const own = sql`(select id from message where source_id = ${source})`;
  for (const table of ['address', 'message_hashtag'] as const)
    await moveRows(store, table, `parked_${table}`, sql`message_id in ${own}`);
  const messages = await moveRows(store, 'message', 'parked_message', sql`source_id = ${source}`);
  for (const table of ['item', 'follow', 'profile'] as const)
    await moveRows(store, table, `parked_${table}`, sql`source_id = ${source}`);
  await moveRows(
    store,
    'account',
    'parked_account',
    sql`not exists (select 1 from message m where m.author_id = account.id)
      and id not in (select to_id from address)
      and id not in (select account_id from item where account_id is not null)
      and id not in (select follower_id from follow) and id not in (select followed_id from follow)`,
  );
  return messages;
}

/**
 * Takes the messages of a source back. Messages that have come again from another source in the meantime stay out; their number is
 * `again`.
 */
export async function unparkSource(
  store: Store,
  source: number,
): Promise<{ messages: number; again: number }> {
  await mergeAccounts(store);
  const own = sql`(select id from parked_message where source_id = ${source})`;
  await moveRows(
    store,
    'parked_account',
    'account',
    sql`id in (
      select author_id from parked_message where source_id = ${source}
      union select parent_author_id from parked_message where source_id = ${source}
      union select account_id from parked_item where source_id = ${source}
      union select follower_id from parked_follow where source_id = ${source}
      union select followed_id from parked_follow where source_id = ${source}
      union select to_id from parked_address where message_id in ${own})`,
  );
  const messages = await moveRows(store, 'parked_message', 'message', sql`source_id = ${source}`);
  const back = sql`(select id from message where source_id = ${source})`;
  for (const table of ['address', 'message_hashtag'] as const)
    await moveRows(store, `parked_${table}`, table, sql`message_id in ${back}`);
  for (const table of ['item', 'follow', 'profile'] as const)
    await moveRows(store, `parked_${table}`, table, sql`source_id = ${source}`);
  const { again } = await store.query
    .selectFrom('parked_message')
    .select((e) => e.fn.countAll<number>().as('again'))
    .where('source_id', '=', source)
    .executeTakeFirstOrThrow();
  return { messages, again };
}

type Movable = 'account' | 'message' | 'address' | 'message_hashtag' | 'item' | 'follow' | 'profile';
type Place = Movable | `parked_${Movable}`;

/** Moves rows into a table of the same columns, but those whose key is there already. Returns how many. */
async function moveRows(
  { query }: Store,
  from: Place,
  to: Place,
  which: RawBuilder<unknown>,
): Promise<number> {
  const moved =
    await sql`insert or ignore into ${sql.table(to)} select * from ${sql.table(from)} where ${which}`.execute(
      query,
    );
  // What could not be moved stays where it is.
  const keys = KEYS[from.replace('parked_', '') as Movable];
  const there = sql`exists (select 1 from ${sql.table(to)} t where ${sql.join(
    keys.map((key) => sql`t.${sql.ref(key)} = ${sql.ref(`${from}.${key}`)}`),
    sql` and `,
  )})`;
  await sql`delete from ${sql.table(from)} where ${which} and ${there}`.execute(query);
  return Number(moved.numAffectedRows ?? 0);
}

/** By what rows are told apart. */
const KEYS: Readonly<Record<Movable, readonly string[]>> = {
  account: ['id'],
  message: ['id'],
  address: ['message_id', 'to_id'],
  message_hashtag: ['message_id', 'hashtag_id'],
  item: ['id'],
  follow: ['followed_id', 'follower_id', 'source_id'],
  profile: ['account_id', 'source_id'],
};

/** Where an account was made anew while its old one was parked, the old one's rows become those of the new one. */
async function mergeAccounts({ query }: Store): Promise<void> {
  const { rows } = await sql<{ old: number; now: number }>`
    select p.id as old, a.id as now from parked_account p join account a on a.handle_key = p.handle_key`.execute(
    query,
  );
  for (const { old, now } of rows) {
    for (const [table, column] of [
      ['message', 'author_id'],
      ['message', 'parent_author_id'],
      ['address', 'from_id'],
      ['address', 'to_id'],
      ['item', 'account_id'],
      ['follow', 'follower_id'],
      ['follow', 'followed_id'],
      ['profile', 'account_id'],
    ] as const)
      await sql`update or replace ${sql.table(`parked_${table}`)} set ${sql.ref(column)} = ${now}
        where ${sql.ref(column)} = ${old}`.execute(query);
    await query.deleteFrom('parked_account').where('id', '=', old).execute();
  }
}
