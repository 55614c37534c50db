import type { Naming } from '@pebble/contract';
import { handleKey, resolve } from '@pebble/core';
import { readDecisions } from '../storage/decisions';
import type { Store } from '../storage/open';

/** Tells who keeps the name though others have pseudonyms: accounts of chosen kinds, and chosen ones; by the key of the person. */
export async function keepersOf(
  store: Store,
  { keep, keepKinds }: Naming,
): Promise<(person: string) => boolean> {
  const { kind } = resolve(await readDecisions(store, ['account']));
  const kinds = new Set<string | null>(keepKinds);
  const chosen = new Set(keep.map(handleKey));
  return (person) => chosen.has(person) || (keepKinds.length > 0 && kinds.has(kind(person)));
}
