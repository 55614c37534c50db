import { sql } from 'kysely';
import { isAmong } from '../lists';
import type { Store } from '../open';
import { eraseMessages } from './eraseMessages';

/** Erases networks that were deleted before, without their files. False, and nothing is erased, where one of them was not. */
export async function eraseNetworks({ query }: Store, ids: readonly string[]): Promise<boolean> {
  const found = await query
    .selectFrom('network')
    .select('id')
    .where(isAmong('id', ids))
    .where('deleted_at', 'is not', null)
    .execute();
  if (found.length < new Set(ids).size) return false;
  for (const table of ['map', 'portrait', 'portrait_set', 'group_notes', 'following', 'plate'] as const)
    await query.deleteFrom(table).where(isAmong('network_id', ids)).execute();
  await query.deleteFrom('network').where(isAmong('id', ids)).execute();
  return true;
}

/** Erases plates that were deleted before. False, and nothing is erased, where one of them was not. */
export async function erasePlates({ query }: Store, ids: readonly number[]): Promise<boolean> {
  const found = await query
    .selectFrom('plate')
    .select('id')
    .where(isAmong('id', ids))
    .where('deleted_at', 'is not', null)
    .execute();
  if (found.length < new Set(ids).size) return false;
  await query.deleteFrom('plate').where(isAmong('id', ids)).execute();
  return true;
}

/** Erases a source that was taken out before, with all it brought. Null, and nothing is erased, where it was not. */
export async function eraseSource(
  store: Store,
  id: number,
): Promise<{ readonly step: number; readonly messages: number } | null> {
  const { query } = store;
  const source = await query
    .selectFrom('source')
    .select('step_id')
    .where('id', '=', id)
    .where('removed_at', 'is not', null)
    .executeTakeFirst();
  if (!source) return null;
  const messages = await eraseMessages(store, 'parked_message', sql`source_id = ${id}`);
  for (const table of ['parked_item', 'parked_follow', 'parked_profile'] as const)
    await query.deleteFrom(table).where('source_id', '=', id).execute();
  await query.updateTable('collect_run').set({ source_id: null }).where('source_id', '=', id).execute();
  await query.deleteFrom('source').where('id', '=', id).execute();
  return { step: source.step_id, messages };
}
