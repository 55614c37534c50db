import * as z from 'zod';
import { MessageFilter, MessageKind } from './message';
import { PortraitThing, Term } from './portraits';

/** Messages that belong together: those that fit a filter (also of a period or a source), of a group, or behind a network. */
export const MessageSet = z.discriminatedUnion('what', [
  z.object({ what: z.literal('filter'), filter: MessageFilter }),
  z.object({ what: z.literal('group'), network: z.string(), column: z.string(), group: z.string() }),
  z.object({ what: z.literal('network'), network: z.string() }),
]);
export type MessageSet = z.infer<typeof MessageSet>;

/** Messages of the nodes of a group that were in a group of an earlier network too. */
export const KeptSet = z.object({
  what: z.literal('kept'),
  network: z.string(),
  column: z.string(),
  group: z.string(),
  before: z.object({ network: z.string(), group: z.string() }),
});
export const ReadSet = z.discriminatedUnion('what', [...MessageSet.options, KeptSet]);
export type ReadSet = z.infer<typeof ReadSet>;

export const ComparisonRequest = z.object({
  a: MessageSet,
  b: MessageSet,
  /** What fewer authors of a set wrote makes none of its topics. */
  leastAuthors: z.int().min(1).max(1000).default(3),
});
export type ComparisonRequest = z.infer<typeof ComparisonRequest>;

const Side = z.object({
  messages: z.int(),
  authors: z.int(),
  /** Milliseconds since 1970; null where no message has a date. */
  first: z.number().nullable(),
  last: z.number().nullable(),
});
const InBoth = z.object({ label: z.string(), a: z.int(), b: z.int() });

/** Two sets of messages beside each other; what is in both sets counts for the first where they are told apart. */
export const Comparison = z.object({
  a: Side,
  b: Side,
  both: z.object({ messages: z.int(), authors: z.int() }),
  /** Terms that are typical of either beside the other, and those that both have, with the messages of each. */
  things: z.record(PortraitThing, z.object({ a: z.array(Term), b: z.array(Term), both: z.array(InBoth) })),
  /** Accounts with their messages, those with most first. */
  accounts: z.object({ a: z.array(InBoth), b: z.array(InBoth), both: z.array(InBoth) }),
  kinds: z.array(z.object({ kind: MessageKind, a: z.int(), b: z.int() })),
  days: z.array(z.object({ day: z.number(), a: z.int(), b: z.int() })),
  /** In one sentence, in which A and B are what is compared. */
  sentence: z.string(),
});
export type Comparison = z.infer<typeof Comparison>;

/** Asks for messages of a set, or of those that are not in another one, in which something stands. */
export const SetMessagesRequest = z.object({
  set: ReadSet,
  without: MessageSet.nullable().default(null),
  thing: PortraitThing.optional(),
  label: z.string().optional(),
  /** Handle of who wrote them. */
  author: z.string().optional(),
  kind: MessageKind.optional(),
  /** UTC, milliseconds since 1970. */
  day: z.number().optional(),
  offset: z.int().min(0).default(0),
  limit: z.int().min(1).max(200).default(50),
});
export type SetMessagesRequest = z.infer<typeof SetMessagesRequest>;
