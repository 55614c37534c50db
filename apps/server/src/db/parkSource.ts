import { sql } from 'kysely';
import type { Store } from './open';

/** Study id under which the messages of sources wait that were taken out. */
export const parked = (study: string): string => `~${study}`;

/**
 * Takes the messages of a source out of its study: they keep their rows under another study id, so that everything that reads a study
 * passes them by, and they can be taken back. Accounts that no message names any more go with them. Returns the number of messages.
 */
export async function parkSource(store: Store, study: string, source: number): Promise<number> {
  const messages = await moveMessages(store, source, study, parked(study));
  await sql`
    update account set study_id = ${parked(study)} where study_id = ${study}
      and not exists (select 1 from message m where m.author_id = account.id and m.study_id = ${study})
      and id not in (select to_id from address where study_id = ${study})
      and id not in (select account_id from item where study_id = ${study} and account_id is not null)
      and id not in (select follower_id from follow where study_id = ${study})
      and id not in (select followed_id from follow where study_id = ${study})`.execute(store.query);
  return messages;
}

/**
 * Takes the messages of a source back. Messages that have come again from another source in the meantime stay out; their number is
 * `again`.
 */
export async function unparkSource(
  store: Store,
  study: string,
  source: number,
): Promise<{ messages: number; again: number }> {
  const { query } = store;
  await mergeAccounts(store, study);
  await sql`
    update account set study_id = ${study} where study_id = ${parked(study)} and id in (
      select author_id from message where source_id = ${source}
      union select account_id from item where source_id = ${source}
      union select follower_id from follow where source_id = ${source}
      union select followed_id from follow where source_id = ${source}
      union select to_id from address where study_id = ${parked(study)} and message_id in (select id from message where source_id = ${source}))`.execute(
    query,
  );
  const messages = await moveMessages(store, source, parked(study), study);
  const { rows } = await sql<{ again: number }>`
    select count(*) as again from message where source_id = ${source} and study_id = ${parked(study)}`.execute(
    query,
  );
  return { messages, again: rows[0].again };
}

/** Gives the messages of a source another study id, but those whose key is there already. */
async function moveMessages({ query }: Store, source: number, from: string, to: string): Promise<number> {
  const moved = sql`(select id from message where source_id = ${source} and study_id = ${to})`;
  const result = await sql`
    update or ignore message set study_id = ${to} where source_id = ${source} and study_id = ${from}`.execute(
    query,
  );
  await sql`update address set study_id = ${to} where study_id = ${from} and message_id in ${moved}`.execute(
    query,
  );
  // Hashtags are counted without looking at messages: those of parked messages stand under negative numbers.
  if (to.startsWith('~'))
    await sql`update message_hashtag set message_id = -message_id where message_id in ${moved}`.execute(
      query,
    );
  else
    await sql`update message_hashtag set message_id = -message_id where -message_id in ${moved}`.execute(
      query,
    );
  for (const table of ['item', 'follow', 'profile'] as const)
    await sql`update or ignore ${sql.table(table)} set study_id = ${to}
      where source_id = ${source} and study_id = ${from}`.execute(query);
  return Number(result.numAffectedRows ?? 0);
}

/** Where an account was made anew while its old one was parked, the old one's messages become those of the new one. */
async function mergeAccounts({ query }: Store, study: string): Promise<void> {
  const { rows } = await sql<{ old: number; now: number }>`
    select p.id as old, a.id as now from account p join account a on a.study_id = ${study} and a.handle_key = p.handle_key
    where p.study_id = ${parked(study)}`.execute(query);
  for (const { old, now } of rows) {
    await sql`update message set author_id = ${now} where author_id = ${old}`.execute(query);
    await sql`update message set parent_author_id = ${now} where parent_author_id = ${old} and study_id = ${parked(study)}`.execute(
      query,
    );
    await sql`update address set from_id = ${now} where from_id = ${old} and study_id = ${parked(study)}`.execute(
      query,
    );
    await sql`update or replace address set to_id = ${now} where to_id = ${old} and study_id = ${parked(study)}`.execute(
      query,
    );
    for (const [table, column] of [
      ['item', 'account_id'],
      ['follow', 'follower_id'],
      ['follow', 'followed_id'],
      ['profile', 'account_id'],
    ] as const)
      await sql`update or ignore ${sql.table(table)} set ${sql.ref(column)} = ${now} where ${sql.ref(column)} = ${old}`.execute(
        query,
      );
    await sql`delete from account where id = ${old}`.execute(query);
  }
}
