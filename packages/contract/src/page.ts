import * as z from 'zod';

/** Rows that one answer holds at most. */
export const MOST_ROWS = 1000;

/** Which part of a list is asked for. */
export const PageQuery = z.object({
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(MOST_ROWS).default(200),
});
export type PageQuery = z.infer<typeof PageQuery>;

/** A part of a list, under the name of what it lists: rows from `offset` on, of `total`. */
export const pageOf = <const N extends string, T extends z.ZodType>(name: N, row: T) =>
  z.object({ total: z.int(), offset: z.int(), [name]: z.array(row) } as {
    total: z.ZodInt;
    offset: z.ZodInt;
  } & Record<N, z.ZodArray<T>>);
