import * as z from 'zod';

/** A work that is cited, as an item of CSL-JSON (Citation Style Language 1.0.2); only the parts that are used here. */
export const Reference = z.object({
  id: z.string(),
  type: z.enum(['article-journal', 'book', 'paper-conference', 'report']),
  title: z.string().optional(),
  author: z.array(z.object({ family: z.string(), given: z.string() })),
  issued: z.object({ 'date-parts': z.array(z.array(z.int())) }),
  'container-title': z.string().optional(),
  volume: z.string().optional(),
  issue: z.string().optional(),
  page: z.string().optional(),
  publisher: z.string().optional(),
});
export type Reference = z.infer<typeof Reference>;

/** Whether the methods text tells every step, or what somebody needs to judge the result. */
export const MethodsLength = z.enum(['long', 'short']);
export type MethodsLength = z.infer<typeof MethodsLength>;

export const MethodsQuery = z.object({ length: MethodsLength.default('long') });
export type MethodsQuery = z.infer<typeof MethodsQuery>;

/** How a network, and what is known of it, came about. */
export const Methods = z.object({
  /** Sentences by what they are about: the material, its tidying, each network, the names of people. */
  paragraphs: z.array(z.array(z.string())),
  /** What these cite, and what the measures cite by which the map is drawn. */
  references: z.array(Reference),
});
export type Methods = z.infer<typeof Methods>;
