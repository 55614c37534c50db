import { PlateMap, type Plate } from '@pebble/contract';
import type { Insertable, Selectable } from 'kysely';
import type { Store } from './open';
import type { PlateTable } from './schema';

/** What a plate showed when it was kept; by its mark it is known again. */
export interface KeptDrawing extends Pick<Plate, 'caption' | 'shown' | 'picture'> {
  readonly mark: string;
}

/** A plate as it is kept, without its places. */
export interface KeptPlate extends Pick<
  Plate,
  'id' | 'title' | 'note' | 'network' | 'isCover' | 'step' | 'keptAt'
> {
  readonly map: PlateMap;
  readonly drawn: KeptDrawing;
}

/** The plates of a study that were not deleted, in their order. */
export async function listPlates({ query }: Store): Promise<KeptPlate[]> {
  const rows = await query
    .selectFrom('plate')
    .select(SAID)
    .where('deleted_at', 'is', null)
    .orderBy('place')
    .orderBy('id')
    .execute();
  return rows.map(toPlate);
}

/** Null where there is none with this number, or it was deleted. */
export async function findPlate({ query }: Store, id: number): Promise<KeptPlate | null> {
  const row = await query
    .selectFrom('plate')
    .select(SAID)
    .where('id', '=', id)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  return row ? toPlate(row) : null;
}

export async function platePositions({ query }: Store, id: number): Promise<Buffer | null> {
  const row = await query.selectFrom('plate').select('positions').where('id', '=', id).executeTakeFirst();
  return row?.positions ?? null;
}

/** What a plate is kept with. */
interface NewPlate extends Pick<
  KeptPlate,
  'title' | 'note' | 'network' | 'step' | 'keptAt' | 'map' | 'drawn'
> {
  readonly positions: Buffer;
}

/** Keeps a plate behind all others, or in the place of one. Gives its number. */
export async function keepPlate(
  { query }: Store,
  { title, note, network, step, keptAt, map, drawn, positions }: NewPlate,
  instead: number | null,
): Promise<number> {
  const values = {
    network_id: network,
    step_id: step,
    kept_at: keptAt,
    title,
    note,
    map: JSON.stringify(map),
    drawn: JSON.stringify(drawn),
    positions,
  } satisfies Partial<Insertable<PlateTable>>;
  if (instead !== null) {
    await query.updateTable('plate').set(values).where('id', '=', instead).execute();
    return instead;
  }
  const { last } = await query
    .selectFrom('plate')
    .select((e) => e.fn.max<number | null>('place').as('last'))
    .executeTakeFirstOrThrow();
  const { id } = await query
    .insertInto('plate')
    .values({ ...values, place: (last ?? 0) + 1, cover: 0, deleted_at: null })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
}

/** Writes the given parts of a plate; the others stay as they are. */
export async function changePlate(
  { query }: Store,
  id: number,
  part: {
    title?: string;
    note?: string;
    deletedAt?: string | null;
    drawn?: KeptDrawing;
    step?: number;
    keptAt?: string;
  },
): Promise<void> {
  await query
    .updateTable('plate')
    .set({
      ...(part.title === undefined ? {} : { title: part.title }),
      ...(part.note === undefined ? {} : { note: part.note }),
      ...(part.deletedAt === undefined ? {} : { deleted_at: part.deletedAt }),
      ...(part.drawn ? { drawn: JSON.stringify(part.drawn) } : {}),
      ...(part.step === undefined ? {} : { step_id: part.step }),
      ...(part.keptAt === undefined ? {} : { kept_at: part.keptAt }),
    })
    .where('id', '=', id)
    .execute();
}

/** Puts plates into an order; those that are not named follow as they were. */
export async function orderPlates({ query }: Store, first: readonly number[]): Promise<void> {
  const rows = await query.selectFrom('plate').select('id').orderBy('place').orderBy('id').execute();
  const rest = rows.map(({ id }) => id).filter((id) => !first.includes(id));
  for (const [place, id] of [...first, ...rest].entries())
    await query
      .updateTable('plate')
      .set({ place: place + 1 })
      .where('id', '=', id)
      .execute();
}

/** @param id null for no cover */
export async function chooseCover({ query }: Store, id: number | null): Promise<void> {
  await query.updateTable('plate').set({ cover: 0 }).where('cover', '=', 1).execute();
  if (id !== null) await query.updateTable('plate').set({ cover: 1 }).where('id', '=', id).execute();
}

const SAID = ['id', 'network_id', 'step_id', 'kept_at', 'title', 'note', 'cover', 'map', 'drawn'] as const;

function toPlate(row: Pick<Selectable<PlateTable>, (typeof SAID)[number]>): KeptPlate {
  return {
    id: row.id,
    title: row.title,
    note: row.note,
    network: row.network_id,
    isCover: row.cover === 1,
    step: row.step_id,
    keptAt: row.kept_at,
    map: PlateMap.parse(JSON.parse(row.map)),
    drawn: JSON.parse(row.drawn) as KeptDrawing,
  };
}
