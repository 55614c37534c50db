import * as z from 'zod';
import { AccountQuery, ItemQuery, MessageFilter } from './message';
import { TidySort } from './tidy';

/** In which formats what a study holds can be saved. */
export const DataFormat = z.enum(['csv', 'jsonl']);
export type DataFormat = z.infer<typeof DataFormat>;

/** What is chosen from each kind of what can be saved. */
export const DataFilters = {
  messages: MessageFilter,
  accounts: AccountQuery.pick({ search: true, by: true, falling: true }),
  items: ItemQuery.pick({ search: true, by: true, falling: true }),
  decisions: z.object({ sort: TidySort.optional() }),
  codebook: z.object({}),
  codings: z.object({}),
  pseudonyms: z.object({}),
  logbook: z.object({}),
} as const;
export type DataKind = keyof typeof DataFilters;

const saved = <const W extends DataKind>(what: W) =>
  z.object({ what: z.literal(what), format: DataFormat, filter: DataFilters[what] });

/** What can be saved, with what it is chosen by. */
export const DataExport = z.discriminatedUnion('what', [
  saved('messages'),
  saved('accounts'),
  saved('items'),
  saved('decisions'),
  saved('codebook'),
  saved('codings'),
  saved('pseudonyms'),
  saved('logbook'),
]);
export type DataExport = z.infer<typeof DataExport>;
