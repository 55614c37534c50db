import * as z from 'zod';
import { Leaks } from './people';

/** What of the messages a page holds: nothing, their numbers by kind, or their texts. */
export const PageMessages = z.enum(['none', 'counts', 'texts']);
export type PageMessages = z.infer<typeof PageMessages>;

const words = z.string().trim().max(300).default('');
const choice = z.enum(['true', 'false']).default('true');

/** What a page to share holds. */
export const SharedPageQuery = z.object({
  /** The number of a plate of the network; the map that is open where it is left out. */
  plate: z.coerce.number().int().optional(),
  title: words,
  author: words,
  licence: words,
  /** Columns of nodes beside those that the map needs, apart by "|". */
  columns: z.string().max(5000).default(''),
  messages: PageMessages.default('none'),
  /** Whether texts are whole, or their first words alone. */
  texts: z.enum(['whole', 'short']).default('whole'),
  /** Whether it can be seen how the map passes through time. */
  days: choice,
  portraits: choice,
});
export type SharedPageQuery = z.infer<typeof SharedPageQuery>;

/** What a page would be, before it is saved. */
export const SharedPageCheck = z.object({
  bytes: z.int(),
  /** Messages whose texts are in it. */
  texts: z.int(),
  /** Why it cannot be saved, and what to leave out; null where it can. */
  problem: z.string().nullable(),
  leaks: Leaks,
});
export type SharedPageCheck = z.infer<typeof SharedPageCheck>;
