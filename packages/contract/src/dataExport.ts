import { z } from 'zod';
import { AccountQuery, ItemQuery, MessageFilter } from './message';
import { TidySort } from './tidy';

/** In which formats what a study holds can be saved. */
export const DataFormat = z.enum(['csv', 'jsonl']);
export type DataFormat = z.infer<typeof DataFormat>;

/** What can be saved, with what it is chosen by. */
export const DataExport = z.discriminatedUnion('what', [
  z.object({ what: z.literal('messages'), format: DataFormat, filter: MessageFilter }),
  z.object({
    what: z.literal('accounts'),
    format: DataFormat,
    filter: AccountQuery.pick({ search: true, by: true, falling: true }),
  }),
  z.object({
    what: z.literal('items'),
    format: DataFormat,
    filter: ItemQuery.pick({ search: true, by: true, falling: true }),
  }),
  z.object({
    what: z.literal('decisions'),
    format: DataFormat,
    filter: z.object({ sort: TidySort.optional() }),
  }),
  z.object({ what: z.literal('logbook'), format: DataFormat, filter: z.object({}) }),
]);
export type DataExport = z.infer<typeof DataExport>;
export type DataKind = DataExport['what'];
