import { ImportMapping, type SavedMapping } from '@pebble/contract';
import type { Catalogue } from './catalogue';

/** Readings that were kept for tables with the same columns, by name. */
export async function savedReadings({ query }: Catalogue, reading: ImportMapping): Promise<SavedMapping[]> {
  const rows = await query
    .selectFrom('saved_reading')
    .selectAll()
    .where('columns', '=', columnsKey(reading))
    .orderBy('name')
    .execute();
  return rows.map(({ id, name, reading: kept }) => ({
    id,
    name,
    reading: ImportMapping.parse(JSON.parse(kept)),
  }));
}

/** Keeps a reading under a name; one with the same name for the same columns is replaced. */
export async function saveReading({ query }: Catalogue, name: string, reading: ImportMapping): Promise<void> {
  const kept = JSON.stringify(reading);
  await query
    .insertInto('saved_reading')
    .values({ name, columns: columnsKey(reading), reading: kept })
    .onConflict((conflict) => conflict.columns(['columns', 'name']).doUpdateSet({ reading: kept }))
    .execute();
}

export async function forgetReading({ query }: Catalogue, id: number): Promise<boolean> {
  const gone = await query.deleteFrom('saved_reading').where('id', '=', id).executeTakeFirst();
  return gone.numDeletedRows > 0n;
}

function columnsKey({ columns }: ImportMapping): string {
  return JSON.stringify(columns.map(({ name }) => name));
}
