import { sql } from 'kysely';
import type { Store } from '../open';
import { eraseMessages, eraseParkedAccounts, eraseUnused, type MessagePlace } from './eraseMessages';
import { handleReplacer } from './replaceHandle';

/** What was erased of an account, and what named it. */
export interface Forgotten {
  /** Messages that it wrote. */
  readonly messages: number;
  /** Messages of others in which its handle was replaced. */
  readonly mentions: number;
  /** Other places in which it stood: decisions, filters, sentences of the logbook. */
  readonly places: number;
}

/** Erases all that a study's database holds of an account, parked rows included, and replaces its handle wherever else it stands. */
export async function forgetInDatabase(
  store: Store,
  handle: string,
  progress: (phase: string) => void,
): Promise<Forgotten> {
  const ids = idsOf(store, handle);
  let messages = 0;
  for (const place of ['message', 'parked_message'] as const)
    messages += await eraseMessages(store, place, sql`author_id in (${sql.join(ids)})`);
  progress('Replacing its handle');
  const mentions = await unaddress(store, ids);
  const replaced = replaceInMessages(store, handle);
  await erasePeople(store, ids);
  await eraseUnused(store);
  await eraseParkedAccounts(store);
  const places = replaceElsewhere(store, handle);
  return { messages, mentions: new Set([...mentions, ...replaced]).size, places };
}

/** The account, and the one of before that is parked, if there is one. */
function idsOf({ raw }: Store, handle: string): number[] {
  return raw
    .prepare(
      `select id from account where handle = :handle union select id from parked_account where handle_key =
        coalesce((select handle_key from account where handle = :handle), '')`,
    )
    .pluck()
    .all({ handle }) as number[];
}

/** Nobody addresses the account any more; a message that addressed nobody else has a row of its author alone. */
async function unaddress({ query }: Store, ids: readonly number[]): Promise<number[]> {
  const touched: number[] = [];
  for (const beside of ['', 'parked_']) {
    const [address, message] = [sql.table(`${beside}address`), sql.table(`${beside}message`)];
    const { rows } = await sql<{ id: number }>`
      select distinct message_id as id from ${address} where to_id in (${sql.join(ids)}) and kinds > 0`.execute(
      query,
    );
    await sql`delete from ${address} where to_id in (${sql.join(ids)})`.execute(query);
    await sql`insert into ${address} (message_id, to_id, from_id, kinds, time)
      select id, author_id, author_id, 0, time from ${message} m
      where not exists (select 1 from ${address} a where a.message_id = m.id)`.execute(query);
    await sql`update ${message} set parent_author_id = null where parent_author_id in (${sql.join(ids)})`.execute(
      query,
    );
    touched.push(...rows.map(({ id }) => id));
  }
  return touched;
}

/** Replaces the handle in what others wrote, and in the full-text index. Gives the messages. */
function replaceInMessages({ raw }: Store, handle: string): number[] {
  const { sought, replace } = handleReplacer(handle, 'written');
  const changed: number[] = [];
  const forget = raw.prepare(
    `insert into message_text (message_text, rowid, text, subject) values ('delete', ?, ?, ?)`,
  );
  const index = raw.prepare('insert into message_text (rowid, text, subject) values (?, ?, ?)');
  for (const place of ['message', 'parked_message'] satisfies MessagePlace[]) {
    const rows = raw
      .prepare(
        `select id, text, subject from ${place} where instr(lower(text || ' ' || coalesce(subject, '')), lower(?))`,
      )
      .all(sought) as { id: number; text: string; subject: string | null }[];
    const update = raw.prepare(`update ${place} set text = ?, subject = ? where id = ?`);
    for (const { id, text, subject } of rows) {
      const now = [replace(text), subject === null ? null : replace(subject)] as const;
      if (now[0] === text && now[1] === subject) continue;
      forget.run(id, text, subject);
      update.run(now[0], now[1], id);
      index.run(id, now[0], now[1]);
      changed.push(id);
    }
  }
  return changed;
}

async function erasePeople({ query }: Store, ids: readonly number[]): Promise<void> {
  const own = sql.join(ids);
  await sql`delete from pseudonym where person in (select handle_key from account where id in (${own})
    union select handle_key from parked_account where id in (${own}))`.execute(query);
  for (const beside of ['', 'parked_']) {
    await sql`delete from ${sql.table(`${beside}item`)} where account_id in (${own})`.execute(query);
    await sql`delete from ${sql.table(`${beside}follow`)} where followed_id in (${own}) or follower_id in (${own})`.execute(
      query,
    );
    await sql`delete from ${sql.table(`${beside}profile`)} where account_id in (${own})`.execute(query);
    await sql`delete from ${sql.table(`${beside}account`)} where id in (${own})`.execute(query);
  }
}

/** Replaces the handle in every other text of the database. Returns in how many places. */
function replaceElsewhere({ raw }: Store, handle: string): number {
  const { sought, replace } = handleReplacer(handle);
  const tables = raw
    .prepare(
      `select name from sqlite_master where type = 'table' and name not like 'message_text%' and name not like 'sqlite_%'`,
    )
    .pluck()
    .all() as string[];
  let places = 0;
  for (const table of tables) {
    const info = raw.prepare(`select name, type, pk from pragma_table_info(?)`).all(table) as {
      name: string;
      type: string;
      pk: number;
    }[];
    const keys = info.filter(({ pk }) => pk > 0).map(({ name }) => name);
    for (const { name } of info.filter(({ type }) => type.toLowerCase() === 'text')) {
      // What people wrote was gone through before.
      if (table.endsWith('message') && (name === 'text' || name === 'subject')) continue;
      const by = keys.length > 0 ? keys : ['rowid'];
      const rows = raw
        .prepare(
          `select ${by.map((key) => `"${key}"`).join(', ')}, "${name}" as value from "${table}" where instr(lower("${name}"), lower(?))`,
        )
        .raw()
        .all(sought) as (string | number)[][];
      const where = by.map((key) => `"${key}" = ?`).join(' and ');
      const update = raw.prepare(`update or ignore "${table}" set "${name}" = ? where ${where}`);
      for (const row of rows) {
        const value = String(row.at(-1));
        const now = replace(value);
        if (now === value) continue;
        const key = row.slice(0, -1);
        // Where another row has this key already, it is told apart.
        if (update.run(now, ...key).changes === 0) update.run(`${now} ${key.join(' ')}`, ...key);
        places++;
      }
    }
  }
  return places;
}
