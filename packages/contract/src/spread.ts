import * as z from 'zod';

/** What spread: a message with all that pass it on, a text wherever it stands alike, a hashtag, or a link. */
export const SpreadOf = z.discriminatedUnion('what', [
  z.object({ what: z.literal('message'), message: z.int() }),
  z.object({ what: z.literal('text'), message: z.int() }),
  z.object({ what: z.literal('hashtag'), label: z.string() }),
  z.object({ what: z.literal('link'), label: z.string() }),
]);
export type SpreadOf = z.infer<typeof SpreadOf>;

export const SpreadOffersQuery = z.object({
  what: z.enum(['message', 'text', 'hashtag', 'link']),
  search: z.string().max(200).default(''),
});
export type SpreadOffersQuery = z.infer<typeof SpreadOffersQuery>;

/** What can be asked of, that which most accounts have first. */
export const SpreadOffers = z.object({
  total: z.int(),
  offers: z.array(z.object({ of: SpreadOf, words: z.string(), accounts: z.int() })),
});
export type SpreadOffers = z.infer<typeof SpreadOffers>;

export const SpreadRequest = z.object({
  of: SpreadOf,
  /** The network on whose groups and map it is told. */
  network: z.string().nullable().default(null),
  column: z.string().default('community'),
  /** Whether an account of which the messages do not tell it has it from the last one before it that it addressed or follows. */
  byTies: z.boolean().default(false),
});
export type SpreadRequest = z.infer<typeof SpreadRequest>;

/** How it is known from whom an account had something: by what its message is, by whom it mentions, or only by ties. */
export const SpreadHow = z.enum(['repost', 'quote', 'reply', 'mention', 'tie']);
export type SpreadHow = z.infer<typeof SpreadHow>;

/** An account when it had it first. */
export const SpreadStep = z.object({
  message: z.int(),
  label: z.string(),
  /** Milliseconds since 1970. */
  time: z.number(),
  /** The place among the steps of the account from which it had it; null where that is not known. */
  from: z.int().nullable(),
  how: SpreadHow.nullable(),
  depth: z.int(),
  /** Its place in the node table of the network, and its group there; null where it is not in it. */
  node: z.int().nullable(),
  group: z.string().nullable(),
});
export type SpreadStep = z.infer<typeof SpreadStep>;

export const Spread = z.object({
  name: z.string(),
  sentence: z.string(),
  messages: z.int(),
  accounts: z.int(),
  told: z.int(),
  likely: z.int(),
  undated: z.int(),
  /** In the order of time; of very many only the first. */
  steps: z.array(SpreadStep),
  /** The largest first; `alone` are those of one account, which are not among them. */
  trees: z.array(
    z.object({ root: z.int(), size: z.int(), depth: z.int(), breadth: z.int(), virality: z.number() }),
  ),
  alone: z.int(),
  furtherTrees: z.int(),
  curve: z.object({
    width: z.number(),
    start: z.number(),
    messages: z.array(z.int()),
    accounts: z.array(z.int()),
  }),
  /** Through which step it entered each group, in the order of time, with the accounts of the group that had it, of how many. */
  entries: z.array(
    z.object({
      group: z.string(),
      step: z.int(),
      accounts: z.int(),
      nodes: z.int(),
      /** Among the groups of the network, in the order of their colours. */
      place: z.int(),
    }),
  ),
  /** Accounts that are not in the network. */
  outside: z.int(),
});
export type Spread = z.infer<typeof Spread>;

/** Asks for messages that spread it: of an account, within a time, of a group of a network. */
export const SpreadMessagesRequest = z.object({
  of: SpreadOf,
  author: z.string().optional(),
  from: z.number().optional(),
  until: z.number().optional(),
  within: z.object({ network: z.string(), column: z.string(), group: z.string() }).nullable().default(null),
  offset: z.int().min(0).default(0),
  limit: z.int().min(1).max(200).default(50),
});
export type SpreadMessagesRequest = z.infer<typeof SpreadMessagesRequest>;
