import { Routine, type KeptRoutine } from '@pebble/contract';
import type { Catalogue } from './catalogue';

/** The routines that were kept, the one changed last first. */
export async function keptRoutines({ query }: Catalogue): Promise<KeptRoutine[]> {
  const rows = await query.selectFrom('routine').selectAll().orderBy('changed_at', 'desc').execute();
  return rows.map(({ id, routine, changed_at }) => ({
    id,
    routine: Routine.parse(JSON.parse(routine)),
    isReady: false,
    changedAt: changed_at,
  }));
}

/** Keeps a routine; one with the same id is replaced. */
export async function keepRoutine({ query }: Catalogue, id: string, routine: Routine): Promise<KeptRoutine> {
  const values = { routine: JSON.stringify(routine), changed_at: new Date().toISOString() };
  await query
    .insertInto('routine')
    .values({ id, ...values })
    .onConflict((c) => c.column('id').doUpdateSet(values))
    .execute();
  return { id, routine, isReady: false, changedAt: values.changed_at };
}

/** Whether there was one. */
export async function forgetRoutine({ query }: Catalogue, id: string): Promise<boolean> {
  const { numDeletedRows } = await query.deleteFrom('routine').where('id', '=', id).executeTakeFirst();
  return numDeletedRows > 0n;
}
