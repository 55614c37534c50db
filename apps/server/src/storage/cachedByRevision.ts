import { changing } from '@pebble/contract';
import type { Store } from './open';

/** So many readings are kept by each thread, the ones used last. */
const KEPT = 3;

interface CachedReading {
  readonly revision: number;
  readonly value: unknown;
}

const readings = new WeakMap<Store['raw'], Map<string, CachedReading>>();

/** What was read from the texts of a study, as long as they hold the same: going through all texts takes seconds. */
export function cachedByRevision<T>(store: Store, what: string, read: () => T): T {
  let known = readings.get(store.raw);
  if (!known) readings.set(store.raw, (known = new Map<string, CachedReading>()));
  const revision = revisionOf(store);
  const before = known.get(what);
  known.delete(what);
  const value = before?.revision === revision ? (before.value as T) : read();
  known.set(what, { revision, value });
  for (const oldest of known.keys()) {
    if (known.size <= KEPT) break;
    known.delete(oldest);
  }
  return value;
}

/** The last step that changed the messages of a study. */
export function revisionOf({ raw }: Pick<Store, 'raw'>): number {
  const kinds = changing('messages')
    .map((kind) => `'${kind}'`)
    .join(', ');
  const sql = `select max(id) from step where state = 'done' and kind in (${kinds})`;
  return (raw.prepare(sql).pluck().get() as number | null) ?? 0;
}
