import { Look, type KeptLook } from '@pebble/contract';
import type { Store } from './open';

/** The looks that were kept by name, for all studies. */
export async function keptLooks({ query }: Store): Promise<KeptLook[]> {
  const rows = await query.selectFrom('kept_look').select(['name', 'look']).orderBy('name').execute();
  return rows.map(({ name, look }) => ({ name, look: Look.parse(JSON.parse(look)) }));
}
