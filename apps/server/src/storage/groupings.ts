import type { ColumnInfo, GroupingInfo } from '@pebble/contract';
import { addOwnColumns } from './networks';
import type { Store } from './open';

/** Keeps how a grouping was found, with the columns that it gave the nodes; null for one that was made by hand. */
export async function keepGrouping(
  store: Store,
  network: string,
  name: string,
  info: GroupingInfo | null,
  columns: readonly ColumnInfo[],
): Promise<void> {
  await addOwnColumns(store, network, columns);
  const row = await store.query
    .selectFrom('network')
    .select('groupings')
    .where('id', '=', network)
    .executeTakeFirstOrThrow();
  const { [name]: _, ...others } = JSON.parse(row.groupings) as Record<string, GroupingInfo>;
  const groupings = info ? { ...others, [name]: info } : others;
  await store.query
    .updateTable('network')
    .set({ groupings: JSON.stringify(groupings) })
    .where('id', '=', network)
    .execute();
}
