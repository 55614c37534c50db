import { MessageFilter, type SavedFilter } from '@pebble/contract';
import type { Store } from './open';

/** The filters of the reading list that were kept for a study, by name. */
export async function savedFilters({ query }: Store): Promise<SavedFilter[]> {
  const rows = await query
    .selectFrom('saved_filter')
    .select(['id', 'name', 'filter'])
    .orderBy('name')
    .execute();
  return rows.map(({ id, name, filter }) => ({ id, name, filter: MessageFilter.parse(JSON.parse(filter)) }));
}
