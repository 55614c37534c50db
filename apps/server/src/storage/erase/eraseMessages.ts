import { sql, type RawBuilder } from 'kysely';
import type { Store } from '../open';

/** Where messages lie: in the study, or parked with a source that was taken out. */
export type MessagePlace = 'message' | 'parked_message';

/**
 * Erases messages with all that hangs on them, also their words in the full-text index. Returns how many.
 * @param which a condition for rows of the table
 */
export async function eraseMessages(
  { query }: Store,
  place: MessagePlace,
  which: RawBuilder<unknown>,
): Promise<number> {
  const ids = sql`(select id from ${sql.table(place)} where ${which})`;
  const beside = place === 'message' ? '' : 'parked_';
  await sql`insert into message_text (message_text, rowid, text, subject)
    select 'delete', id, text, subject from ${sql.table(place)} where ${which}`.execute(query);
  for (const table of [
    `${beside}address`,
    `${beside}message_hashtag`,
    'message_language',
    'message_mark',
    'message_score',
    'message_name',
    'coded_message',
    'coding',
    'sample_message',
  ])
    await sql`delete from ${sql.table(table)} where message_id in ${ids}`.execute(query);
  const gone = await sql`delete from ${sql.table(place)} where ${which}`.execute(query);
  return Number(gone.numAffectedRows ?? 0);
}

/** Erases hashtags and names that stand in no message any more, parked ones included. */
export async function eraseUnused({ query }: Store): Promise<void> {
  await sql`delete from hashtag where id not in (select hashtag_id from message_hashtag)
    and id not in (select hashtag_id from parked_message_hashtag)`.execute(query);
  await sql`delete from name where id not in (select name_id from message_name)`.execute(query);
}

/** Erases parked accounts that no parked row names any more. */
export async function eraseParkedAccounts({ query }: Store): Promise<void> {
  await sql`delete from parked_account where id not in (
    select author_id from parked_message
    union select parent_author_id from parked_message where parent_author_id is not null
    union select to_id from parked_address
    union select account_id from parked_item where account_id is not null
    union select follower_id from parked_follow union select followed_id from parked_follow)`.execute(query);
}
