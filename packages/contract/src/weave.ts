import { z } from 'zod';

/** The ways in which one message addresses another account; the last three are those of email. */
export const AddressKind = z.enum(['reply', 'mention', 'repost', 'to', 'cc', 'bcc']);
export type AddressKind = z.infer<typeof AddressKind>;
export const ADDRESS_KINDS = AddressKind.options;

/** A weave of accounts by address: the recipe for one network. */
export const AccountWeave = z.object({
  kinds: z.array(AddressKind).min(1, 'Choose at least one way in which messages address accounts.'),
  /** From this moment on, and before that moment: milliseconds since 1970, or null for no bound. */
  from: z.number().nullable().default(null),
  until: z.number().nullable().default(null),
  /** Ties with fewer messages than this are left out. */
  atLeast: z.int().min(1).max(1_000_000).default(1),
  /** A message that addresses nobody is a tie of its author to itself. */
  selfTies: z.boolean().default(false),
  /** Accounts without a tie are kept as nodes. */
  isolates: z.boolean().default(true),
});
export type AccountWeave = z.infer<typeof AccountWeave>;

/** How large a weave would be, without weaving it. */
export const WeaveEstimate = z.object({
  messages: z.int(),
  nodes: z.int(),
  edges: z.int(),
  selfTies: z.int(),
  isolates: z.int(),
  components: z.int(),
  /** Nodes of the largest weak component over all nodes, 0 to 1. */
  largestShare: z.number(),
  largest: z.int(),
  droppedBelowThreshold: z.int(),
  /** Which part of the sentence empties the result, when it is empty. */
  emptiedBy: z.string().nullable(),
});
export type WeaveEstimate = z.infer<typeof WeaveEstimate>;

export const ColumnInfo = z.object({
  name: z.string(),
  title: z.string(),
  type: z.enum(['number', 'category', 'text']),
  how: z.string(),
});
export type ColumnInfo = z.infer<typeof ColumnInfo>;

export const NetworkState = z.enum(['woven', 'measured']);

export const Network = z.object({
  id: z.string(),
  study: z.string(),
  name: z.string(),
  /** Null for a network that came finished from a file; there are no messages behind it. */
  weave: AccountWeave.nullable(),
  directed: z.boolean(),
  sentence: z.string(),
  step: z.int(),
  createdAt: z.string(),
  nodes: z.int(),
  edges: z.int(),
  messages: z.int(),
  state: NetworkState,
  columns: z.array(ColumnInfo),
  measures: z.record(z.string(), z.union([z.number(), z.string(), z.boolean()])),
});
export type Network = z.infer<typeof Network>;
export const NetworkList = z.array(Network);

export const MeasureSettings = z.object({
  resolution: z.number().min(0.01).max(100).default(1),
  seed: z.int().min(0).max(0xffffffff).default(1),
  /** Louvain is run this often with seeds drawn from the seed; the run with the highest modularity is kept. */
  runs: z.int().min(1).max(100).default(5),
});
export type MeasureSettings = z.infer<typeof MeasureSettings>;
