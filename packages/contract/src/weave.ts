import * as z from 'zod';
import { AddressKind } from './addressKind';
import { MessageFilter } from './message';

/** From this moment on, and before that moment: milliseconds since 1970, or null for no bound. */
const PERIOD = { from: z.number().nullable().default(null), until: z.number().nullable().default(null) };

/** A filter of messages with the name under which it was kept. */
export const NamedFilter = z.object({ name: z.string().min(1).max(100), filter: MessageFilter });
export type NamedFilter = z.infer<typeof NamedFilter>;
export const NamedSource = z.object({ id: z.int(), name: z.string() });

/** Which messages are taken: those of a period that fit one filter and not another, without those of some sources. */
const TAKEN = {
  ...PERIOD,
  only: NamedFilter.nullable().default(null),
  except: NamedFilter.nullable().default(null),
  withoutSources: z.array(NamedSource).max(1000).default([]),
};
export const TakenMessages = z.object(TAKEN);
export type TakenMessages = z.infer<typeof TakenMessages>;

/** Ties of less than this are left out. */
const atLeast = z.int().min(1).max(1_000_000).default(1);

/** What becomes of directions: they are kept, or both ways of a pair become one tie, of their sum, lesser, greater, or only where both are. */
export const Direction = z.enum(['kept', 'sum', 'least', 'greatest', 'mutual']);
export type Direction = z.infer<typeof Direction>;

/** What is done with a network when its ties are counted. */
const AFTER = {
  /** Ties that stand out for one of their ends at this level (disparity filter); null for all. */
  backbone: z.number().min(0.000001).max(1).nullable().default(null),
  /** Nodes tied to at least so many others; null for all. */
  neighboursAtLeast: z.int().min(1).max(1_000_000).nullable().default(null),
  largestOnly: z.boolean().default(false),
};
const DIRECTED = { direction: Direction.default('kept'), ...AFTER };

/** Accounts tied by who addresses whom. */
export const AccountWeave = z.object({
  what: z.literal('accounts'),
  kinds: z.array(AddressKind).min(1, 'Choose at least one way in which messages address accounts.'),
  ...TAKEN,
  /** Messages. */
  atLeast,
  /** Whether a repost also counts for each account that the reposted text mentions. */
  repostMentions: z.boolean().default(true),
  /** A message that addresses nobody is a tie of its author to itself. */
  selfTies: z.boolean().default(false),
  /** Accounts without a tie are kept as nodes. */
  isolates: z.boolean().default(true),
  /** Only messages that address at most so many accounts; null for all. */
  mostReceivers: z.int().min(1).max(10_000).nullable().default(null),
  /** Each message counts one for each account it addresses, or one in all, divided by their number. */
  share: z.enum(['whole', 'divided']).default('whole'),
  ...DIRECTED,
});
export type AccountWeave = z.infer<typeof AccountWeave>;

/** What stands in messages and can be tied: an item is the video or page under which a message stands, a channel who put it there. */
export const ThingKind = z.enum(['hashtag', 'mention', 'domain', 'link', 'word', 'name', 'item', 'channel']);
export type ThingKind = z.infer<typeof ThingKind>;

/** What is left out of the things: rare ones, all but the most used, those named here, and messages with very many of them. */
const THINGS = {
  things: ThingKind,
  /** Messages in which a thing stands, at least. */
  usedAtLeast: z.int().min(1).max(1_000_000).default(1),
  /** Only so many things, those in most messages; null for all. */
  mostUsed: z.int().min(2).max(100_000).nullable().default(null),
  /** Names that are left out, such as the collecting hashtag. */
  without: z.array(z.string().trim().min(1).max(200)).max(500).default([]),
  /** Messages with more things than this say little of what belongs together. */
  mostInOne: z.int().min(2).max(10_000).default(30),
  /** Whether reposts count, which repeat what another message says. */
  reposts: z.boolean().default(true),
};

/** How the number of what two nodes share becomes their weight. */
export const Scale = z.enum(['count', 'newman', 'jaccard', 'cosine']);
export type Scale = z.infer<typeof Scale>;

/** Things tied when they stand together: in one message, near each other in it, in one thread, or with the same author. */
export const TogetherWeave = z.object({
  what: z.literal('together'),
  ...THINGS,
  ...TAKEN,
  unit: z.enum(['message', 'near', 'thread', 'author', 'author-day']).default('message'),
  /** Where things must be near: at most so many words apart, next to each other being one apart. */
  within: z.int().min(1).max(1000).default(5),
  /** Units that two things share, or the authors of these. */
  weight: z.enum(['units', 'authors']).default('units'),
  scale: Scale.default('count'),
  atLeast,
  isolates: z.boolean().default(false),
  ...AFTER,
});
export type TogetherWeave = z.infer<typeof TogetherWeave>;

/** Accounts tied by the things that they share. */
export const SharedWeave = z.object({
  what: z.literal('shared'),
  ...THINGS,
  ...TAKEN,
  scale: Scale.default('count'),
  /** Things that two accounts share. */
  atLeast,
  isolates: z.boolean().default(false),
  ...AFTER,
});
export type SharedWeave = z.infer<typeof SharedWeave>;

/** Accounts and things as two sorts of nodes: an account is tied to what it uses. */
export const TwoModeWeave = z.object({
  what: z.literal('two-mode'),
  ...THINGS,
  ...TAKEN,
  atLeast,
  ...AFTER,
});
export type TwoModeWeave = z.infer<typeof TwoModeWeave>;

/** Who follows whom, from follower lists. */
export const FollowWeave = z.object({
  what: z.literal('follows'),
  /** Followers of at least so many of the listed accounts. */
  listsAtLeast: z.int().min(1).max(1000).default(1),
  /** Accounts as nodes of one sort, or followers and lists as two sorts, where a listed account may stand as both. */
  sorts: z.enum(['one', 'two']).default('one'),
  ...DIRECTED,
});
export type FollowWeave = z.infer<typeof FollowWeave>;

/** Accounts that post the same within seconds, again and again. */
export const InStepWeave = z.object({
  what: z.literal('in-step'),
  same: z.enum(['text', 'link', 'hashtags']).default('text'),
  seconds: z.int().min(1).max(86_400).default(60),
  ...TAKEN,
  atLeast: z.int().min(1).max(1_000_000).default(2),
  reposts: z.boolean().default(false),
  ...AFTER,
});
export type InStepWeave = z.infer<typeof InStepWeave>;

/** Messages or accounts with a similar wording: those whose sets of words are alike. */
export const AlikeWeave = z.object({
  what: z.literal('alike'),
  nodes: z.enum(['message', 'account']).default('message'),
  /** Words that two share, over those that either has (Jaccard), 0 to 1. */
  likeness: z.number().min(0).max(1).default(0.6),
  /** Words that two share. */
  atLeast: z.int().min(1).max(1_000_000).default(4),
  ...TAKEN,
  reposts: z.boolean().default(false),
  ...AFTER,
});
export type AlikeWeave = z.infer<typeof AlikeWeave>;

/** The groups of a network as nodes. */
export const GroupWeave = z.object({
  what: z.literal('groups'),
  network: z.string(),
  /** A column of the network's nodes. */
  column: z.string(),
  /** Groups whose nodes are shown singly. */
  open: z.array(z.string()).max(100).default([]),
  /** Weight between two groups. */
  atLeast: z.number().min(0).default(0),
});
export type GroupWeave = z.infer<typeof GroupWeave>;

/** The nodes of one sort of a two-mode network, tied by those of the other sort that they share. */
export const ProjectionWeave = z.object({
  what: z.literal('projection'),
  network: z.string(),
  /** Of which sort the nodes are: a value of the column "mode". */
  sort: z.string(),
  scale: Scale.default('count'),
  /** Nodes of the other sort that two share. */
  atLeast,
  /** Nodes of the other sort that each is tied to. */
  partnersAtLeast: z.int().min(1).max(1_000_000).default(1),
  isolates: z.boolean().default(false),
  ...AFTER,
});
export type ProjectionWeave = z.infer<typeof ProjectionWeave>;

/** The recipe for one network. */
export const Weave = z.discriminatedUnion('what', [
  AccountWeave,
  TogetherWeave,
  SharedWeave,
  TwoModeWeave,
  FollowWeave,
  InStepWeave,
  AlikeWeave,
  GroupWeave,
  ProjectionWeave,
]);
export type Weave = z.infer<typeof Weave>;
export type WeaveKind = Weave['what'];

/** Into which parts the time of a weave is cut: days, weeks from Monday, months (UTC), or before and after a moment. */
export const SliceBy = z.enum(['day', 'week', 'month', 'event']);
export type SliceBy = z.infer<typeof SliceBy>;

/** The strongest ties of a weave, to be drawn small: labels of their nodes, and ties as places in these with their weight. */
export const Sketch = z.object({
  labels: z.array(z.string()),
  ties: z.array(z.object({ source: z.int(), target: z.int(), weight: z.number() })),
});
export type Sketch = z.infer<typeof Sketch>;

const THINNED = {
  ties: z.int(),
  /** Nodes that keep a tie. */
  nodes: z.int(),
  /** Of the weight of all ties, 0 to 1. */
  weight: z.number(),
};

/** What a backbone keeps, beside the plain threshold of the weight that keeps about as many ties; self-ties do not count. */
export const Thinned = z.object({
  /** Ties before. */
  of: z.int(),
  backbone: z.object(THINNED),
  plain: z.object({ atLeast: z.number(), ...THINNED }),
  /** Ties that both keep. */
  both: z.int(),
});
export type Thinned = z.infer<typeof Thinned>;

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
  /** What was left out beside weak ties, in sentences. */
  notes: z.array(z.string()).default([]),
  /** Which part of the sentence empties the result, when it is empty. */
  emptiedBy: z.string().nullable(),
  /** Whether it would be too large to be woven; `emptiedBy` says how large. */
  tooLarge: z.boolean().default(false),
  /** What each tie would need at least for as many as can be held; null where it fits, or that is not known. */
  wouldFit: z.int().nullable().default(null),
  /** What the backbone keeps, where it is asked for. */
  thinned: Thinned.nullable().default(null),
  sketch: Sketch.default({ labels: [], ties: [] }),
});
export type WeaveEstimate = z.infer<typeof WeaveEstimate>;
