import { statSync } from 'node:fs';
import type { Plate, PlateToday, SmallPicture } from '@pebble/contract';
import { findNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { listPlates, platePositions, type KeptPlate } from '../storage/plates';
import { readSmallPicture } from '../storage/files/smallPictures';
import { wholeTable } from '../storage/files/tables';
import { drawPlate } from './drawnPlate';

/** The plates of a study in their order, each with whether it would look the same today. */
export async function readPlates(store: Store): Promise<Plate[]> {
  const plates: Plate[] = [];
  for (const kept of await listPlates(store)) {
    const { map: _map, drawn, ...said } = kept;
    const { caption, shown, picture } = drawn;
    const found = await findNetwork(store, kept.network);
    const networkName = found?.name ?? (await nameOfDeleted(store, kept.network));
    const today = found ? await todayOf(store, kept, found) : ({ what: 'no network' } as const);
    plates.push({ ...said, networkName, caption, shown, picture, today });
  }
  return plates;
}

/** The picture that stands for a study; null where it has no map yet. */
export async function readCover(store: Store): Promise<SmallPicture | null> {
  const cover = (await listPlates(store)).find(({ isCover }) => isCover);
  if (cover) return cover.drawn.picture;
  const newest = await store.query
    .selectFrom('network')
    .select('id')
    .where('deleted_at', 'is', null)
    .where('slice', 'is', null)
    .orderBy('step_id', 'desc')
    .limit(1)
    .executeTakeFirst();
  return newest ? readSmallPicture(store, newest.id) : null;
}

async function nameOfDeleted({ query }: Store, id: string): Promise<string> {
  const row = await query.selectFrom('network').select('name').where('id', '=', id).executeTakeFirst();
  return row?.name ?? '';
}

async function todayOf(
  store: Store,
  kept: KeptPlate,
  network: NonNullable<Awaited<ReturnType<typeof findNetwork>>>,
): Promise<PlateToday> {
  if (network.stale) return { what: 'stale' };
  const is = JSON.stringify([kept.step, revisionOf(store, network.id), network.titles]);
  const known = seen.get(store.raw)?.get(kept.id);
  if (known?.is === is) return known.today;
  const today = await compare(store, kept, network);
  if (!seen.has(store.raw)) seen.set(store.raw, new Map());
  seen.get(store.raw)!.set(kept.id, { is, today });
  return today;
}

async function compare(
  store: Store,
  kept: KeptPlate,
  network: NonNullable<Awaited<ReturnType<typeof findNetwork>>>,
): Promise<PlateToday> {
  try {
    const positions = await platePositions(store, kept.id);
    const now = await drawPlate(store, network, kept.map, positions!);
    return now.mark === kept.drawn.mark ? { what: 'same' } : { what: 'other', shown: now.shown };
  } catch (error) {
    return { what: 'not drawn', why: error instanceof Error ? error.message : String(error) };
  }
}

/** What was found when plates were compared last, by their number, for the tables of then. */
const seen = new WeakMap<Store['raw'], Map<number, { readonly is: string; readonly today: PlateToday }>>();

/** When the tables of a network were written. */
function revisionOf({ folder }: Store, network: string): readonly number[] {
  return (['nodes', 'edges'] as const).map((table) => statSync(wholeTable(folder, network, table)).mtimeMs);
}
