import { Following } from '@pebble/contract';
import type { Store } from './open';

/** What is kept of the way that groups go through time; whether it is out of date is told when it is read. */
type KeptFollowing = Omit<Following, 'outOfDate' | 'step'>;

/** Keeps how the groups of a network's slices go on, in the place of what was known. @param drawnFrom tells the groups of all slices apart */
export async function keepFollowing(
  { query }: Store,
  network: string,
  { step, drawnFrom }: { readonly step: number; readonly drawnFrom: string },
  body: KeptFollowing,
): Promise<void> {
  const values = { step_id: step, drawn_from: drawnFrom, body: JSON.stringify(body) };
  await query
    .insertInto('following')
    .values({ network_id: network, ...values })
    .onConflict((c) => c.column('network_id').doUpdateSet(values))
    .execute();
}

/** How the groups of a network's slices go on, with what it was drawn from; null where it is not known. */
export async function findFollowing(
  { query }: Store,
  network: string,
): Promise<{ readonly following: Following; readonly drawnFrom: string } | null> {
  const row = await query
    .selectFrom('following')
    .selectAll()
    .where('network_id', '=', network)
    .executeTakeFirst();
  if (!row) return null;
  const body = { ...(JSON.parse(row.body) as KeptFollowing), step: row.step_id, outOfDate: '' };
  return { following: Following.parse(body), drawnFrom: row.drawn_from };
}
