import { MessageKind } from '@pebble/contract';
import { KIND_BIT, parentBit } from '@pebble/core';
import { sql } from 'kysely';
import { isAmong } from '../lists';
import type { Store } from '../open';
import type { Unlinked } from './messageLoader';

/**
 * Fills in who is answered or reposted where only the parent's key was given and the parent is there now, also for messages
 * of earlier imports; and whom an empty repost passes on. Returns how many parents of this source are still missing.
 */
export async function linkParents(
  { query }: Store,
  source: number,
  { orphans, emptyReposts }: Unlinked,
): Promise<number> {
  const among = orphans === null ? sql`` : sql`and ${isAmong('message.id', orphans)}`;
  const byKind = MessageKind.options.map((kind) => sql`when ${kind} then ${sql.lit(parentBit(kind))}`);
  const { rows: linked } = await sql<{ id: number }>`
    update message set parent_author_id = p.author_id from message p
    where message.parent_author_id is null and message.parent_key is not null ${among}
      and p.key = message.parent_key
    returning message.id`.execute(query);
  await sql`
    insert into address (message_id, to_id, from_id, kinds, time)
    select m.id, m.parent_author_id, m.author_id,
      case m.kind ${sql.join(byKind, sql` `)} end, m.time
    from message m where ${isAmong(
      'm.id',
      linked.map(({ id }) => id),
    )}
    on conflict do update set kinds = kinds | excluded.kinds`.execute(query);
  if (emptyReposts)
    await sql`
      insert into address (message_id, to_id, from_id, kinds, time)
      select m.id, a.to_id, m.author_id, ${KIND_BIT.mention}, m.time
      from message m join message p on p.key = m.parent_key
        join address a on a.message_id = p.id and a.kinds & ${KIND_BIT.mention}
      where m.parent_key is not null and m.kind = 'repost' and m.text = ''
      on conflict do update set kinds = kinds | excluded.kinds`.execute(query);
  const { rows } = await sql<{ missing: number }>`
    select count(*) as missing from message
    where message.source_id = ${source} and message.parent_key is not null ${among}
      and not exists (select 1 from message p where p.key = message.parent_key)`.execute(query);
  return rows[0].missing;
}
