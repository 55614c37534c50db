import { MOST_ROWS, type PageQuery } from '@pebble/contract';
import { EMPTY, expand, map, reduce, type Observable } from 'rxjs';

/** A part of a list under the name of what it lists. */
type PageOf<N extends string, T> = { readonly total: number; readonly offset: number } & Readonly<
  Record<N, readonly T[]>
>;

/** Reads a list page by page to its end; a row that moved to the next page meanwhile comes once. */
export function everyPage<N extends string, T extends { readonly id: string | number }>(
  name: N,
  ask: (page: PageQuery) => Observable<PageOf<N, T>>,
): Observable<T[]> {
  const from = (offset: number): Observable<PageOf<N, T>> => ask({ offset, limit: MOST_ROWS });
  return from(0).pipe(
    expand((page) => {
      const read = page.offset + page[name].length;
      return page[name].length === 0 || read >= page.total ? EMPTY : from(read);
    }),
    reduce((rows, page) => {
      for (const row of page[name]) rows.set(row.id, row);
      return rows;
    }, new Map<T['id'], T>()),
    map((rows) => [...rows.values()]),
  );
}
