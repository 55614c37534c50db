import * as z from 'zod';

/** An error as it goes over the wire: RFC 9457 problem details, with the place where the fault lies. */
export const Problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  /** The file, row and field that are at fault, where there are any. */
  file: z.string().optional(),
  row: z.int().optional(),
  field: z.string().optional(),
  /** What was kept in spite of the error, and what to do next. */
  kept: z.string().optional(),
});
export type Problem = z.infer<typeof Problem>;
