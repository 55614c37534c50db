import type {
  AccountPage,
  AccountQuery,
  ItemPage,
  ItemQuery,
  MessageOverview,
  MessagePage,
  MessageQuery,
  Suggestion,
  Thread,
  TidyPage,
  TidyQuery,
  TidySort,
  Timeline,
  TimelineQuery,
  Weave,
  WeaveEstimate,
} from '@pebble/contract';
import type { z } from 'zod';
import { readAccounts } from '../db/accounts';
import { readItems } from '../db/items';
import { readMessages, readOverview } from '../db/messages';
import { readTimeline } from '../db/timeline';
import type { Store } from '../db/open';
import { readThread } from '../db/threads';
import { readSuggestions, readTidyPage } from '../tidying/review';
import { estimateWeave } from '../weaving/estimateWeave';

/**
 * What reads a study and may take a while for a large one. It is done in a thread beside the one that answers requests, so that the
 * application answers meanwhile.
 */
export interface Reads {
  overview: { asks: undefined; gives: MessageOverview };
  timeline: { asks: z.infer<typeof TimelineQuery>; gives: Timeline };
  messages: { asks: MessageQuery; gives: MessagePage };
  thread: { asks: number; gives: Thread | null };
  accounts: { asks: AccountQuery; gives: AccountPage };
  items: { asks: ItemQuery; gives: ItemPage };
  estimate: { asks: Weave; gives: WeaveEstimate };
  tidy: { asks: TidyQuery & { sort: TidySort }; gives: TidyPage };
  suggestions: { asks: TidySort; gives: Suggestion[] };
}
export type ReadName = keyof Reads;

type Reader<N extends ReadName> = (
  store: Store,
  study: string,
  asks: Reads[N]['asks'],
) => Promise<Reads[N]['gives']>;

export const readers: { readonly [N in ReadName]: Reader<N> } = {
  overview: readOverview,
  timeline: (store, study, { by, ...filter }) => readTimeline(store, study, filter, by),
  messages: readMessages,
  thread: readThread,
  accounts: readAccounts,
  items: readItems,
  estimate: estimateWeave,
  tidy: readTidyPage,
  suggestions: readSuggestions,
};
