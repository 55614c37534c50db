import { Look, type KeptLook } from '@pebble/contract';
import type { Catalogue } from './catalogue';

/** The looks that were kept by name, for all studies. */
export async function keptLooks({ query }: Catalogue): Promise<KeptLook[]> {
  const rows = await query.selectFrom('kept_look').select(['name', 'look']).orderBy('name').execute();
  return rows.map(({ name, look }) => ({ name, look: Look.parse(JSON.parse(look)) }));
}

/** Keeps a look by its name; the same name is replaced. */
export async function keepKeptLook({ query }: Catalogue, { name, look }: KeptLook): Promise<void> {
  const values = { look: JSON.stringify(look) };
  await query
    .insertInto('kept_look')
    .values({ name, ...values })
    .onConflict((c) => c.column('name').doUpdateSet(values))
    .execute();
}

export async function forgetKeptLook({ query }: Catalogue, name: string): Promise<void> {
  await query.deleteFrom('kept_look').where('name', '=', name).execute();
}
