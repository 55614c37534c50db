import type { PageQuery } from '@pebble/contract';
import type { SelectQueryBuilder } from 'kysely';

/** Some rows of a list, with how many there are in all. */
interface Rows<T> {
  readonly total: number;
  readonly offset: number;
  readonly rows: T[];
}

/** Reads a part of what a query gives, and counts the whole. */
export async function readPage<DB, TB extends keyof DB, O>(
  query: SelectQueryBuilder<DB, TB, O>,
  { offset, limit }: PageQuery,
): Promise<Rows<O>> {
  const counting = query.clearSelect().clearOrderBy();
  const counted = await counting.select((e) => e.fn.countAll<number>().as('total')).execute();
  const [{ total }] = counted as { total: number }[];
  return { total, offset, rows: await query.limit(limit).offset(offset).execute() };
}
