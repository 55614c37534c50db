import { sql } from 'kysely';
import type { Store } from '../open';

/** Answers to answers that are followed up to their item at most. */
const DEEPEST = 200;

/**
 * Ties comments to their items: a message whose parent is an item stands under it, and an answer stands under the item of the message that
 * it answers. Returns how many messages of the source stand under an item that is not in the study.
 */
export async function linkItems({ query }: Store, source: number): Promise<number> {
  const any = await query.selectFrom('item').select('id').limit(1).executeTakeFirst();
  if (any) {
    await sql`
      update message set item_key = parent_key, parent_key = null, kind = case kind when 'reply' then 'comment' else kind end
      where item_key is null and parent_key is not null
        and exists (select 1 from item i where i.key = message.parent_key)
        and not exists (select 1 from message p where p.key = message.parent_key)`.execute(query);
    for (let depth = 0; depth < DEEPEST; depth++) {
      const result = await sql`
        update message set item_key = p.item_key from message p
        where message.item_key is null and message.parent_key is not null
          and p.key = message.parent_key and p.item_key is not null`.execute(query);
      if (!result.numAffectedRows) break;
    }
  }
  const { rows } = await sql<{ missing: number }>`
    select count(*) as missing from message m
    where m.source_id = ${source} and m.item_key is not null
      and not exists (select 1 from item i where i.key = m.item_key)`.execute(query);
  return rows[0].missing;
}
