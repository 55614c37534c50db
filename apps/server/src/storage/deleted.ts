import { KEPT_DAYS, type Deleted } from '@pebble/contract';
import type { Store } from './open';

const DAY = 86_400_000;

/** When something that was deleted then is removed for good, RFC 3339. */
export const goneAt = (deletedAt: string): string =>
  new Date(Date.parse(deletedAt) + KEPT_DAYS * DAY).toISOString();

/** What was deleted in a study and can be taken back, the latest first; slices go with their wholes and are not told apart. */
export async function readDeleted({ query }: Store): Promise<Deleted[]> {
  const networks = await query
    .selectFrom('network')
    .select(['id', 'name', 'deleted_at'])
    .where('deleted_at', 'is not', null)
    .execute();
  const sources = await query
    .selectFrom('source')
    .select(['id', 'name', 'removed_at'])
    .where('removed_at', 'is not', null)
    .execute();
  const plates = await query
    .selectFrom('plate')
    .select(['id', 'title', 'deleted_at'])
    .where('deleted_at', 'is not', null)
    .execute();
  return [
    ...networks.map(({ id, name, deleted_at }): Deleted => ({
      what: 'network',
      id,
      name,
      deletedAt: deleted_at!,
      goneAt: goneAt(deleted_at!),
    })),
    ...sources.map(({ id, name, removed_at }): Deleted => ({
      what: 'source',
      id,
      name,
      deletedAt: removed_at!,
      goneAt: goneAt(removed_at!),
    })),
    ...plates.map(({ id, title, deleted_at }): Deleted => ({
      what: 'plate',
      id,
      name: title,
      deletedAt: deleted_at!,
      goneAt: goneAt(deleted_at!),
    })),
  ].sort((a, b) => (a.deletedAt < b.deletedAt ? 1 : -1));
}

/** The step that removes what has been deleted for long enough; null where there is nothing. */
export async function overdue(
  store: Store,
  now = new Date(),
): Promise<{ networks: string[]; sources: number[]; plates: number[] } | null> {
  const late = (await readDeleted(store)).filter((one) => Date.parse(one.goneAt) <= now.getTime());
  if (late.length === 0) return null;
  return {
    networks: late.flatMap((one) => (one.what === 'network' ? [one.id] : [])),
    sources: late.flatMap((one) => (one.what === 'source' ? [one.id] : [])),
    plates: late.flatMap((one) => (one.what === 'plate' ? [one.id] : [])),
  };
}
