import * as z from 'zod';
import { Message, MessageKind, Scorer } from './message';

/** What stands in messages and can be typical for a group of them. */
export const PortraitThing = z.enum([
  'hashtag',
  'word',
  'domain',
  'link',
  'name',
  'emoji',
  'language',
  'code',
]);
export type PortraitThing = z.infer<typeof PortraitThing>;

/** How often something stands in the messages of a group, beside all others of the network; each message counts once. */
export const Term = z.object({
  label: z.string(),
  messages: z.int(),
  elsewhere: z.int(),
  /** Authors of the group who wrote it. */
  authors: z.int(),
  /** Log-likelihood, 0 or more. */
  score: z.number(),
  /** How many times as large its share is as elsewhere; null where it stands here alone. */
  times: z.number().nullable(),
});
export type Term = z.infer<typeof Term>;

export const TermLists = z.object({
  typical: z.array(Term),
  used: z.array(Term),
  missing: z.array(Term),
  /** Terms that would be typical, were they not written by so few. */
  ofFewAuthors: z.int(),
});

/** A node by its place in the network's table, with the number by which it stands in a list. */
export const StandingNode = z.object({ node: z.int(), value: z.number() });
export type StandingNode = z.infer<typeof StandingNode>;

/** What ties a group to another one; weight of ties, without direction all of it as `out`. */
export const GroupTie = z.object({
  /** Place of the other group among those of the portraits; null for all that have none. */
  group: z.int().nullable(),
  out: z.number(),
  into: z.number(),
  ties: z.int(),
  /** Nodes of the group that carry most of it. */
  by: z.array(z.int()),
});
export type GroupTie = z.infer<typeof GroupTie>;

/** Messages of a group on one day (UTC, milliseconds since 1970), and of the whole network. */
export const ActiveDay = z.object({ day: z.number(), messages: z.int(), all: z.int() });
export type ActiveDay = z.infer<typeof ActiveDay>;

const portraitSettings = {
  /** What fewer authors of a group wrote makes none of its topics. */
  leastAuthors: z.int().min(1).max(1000).default(3),
  /** So many of the largest groups are portrayed. */
  most: z.int().min(1).max(200).default(40),
  /** For the random sample of messages. */
  seed: z.int().min(0).max(0xffffffff).default(1),
};
export const PortraitSettings = z.object(portraitSettings);
export type PortraitSettings = z.infer<typeof PortraitSettings>;

/** By what a title suggests itself; a group that has a name of its own keeps it. */
export const TitleBy = z.enum(['name', 'hashtags', 'words', 'node']);

/** A group among those that were portrayed. */
export const PortraitHead = z.object({
  /** Its value in the column. */
  group: z.string(),
  nodes: z.int(),
  messages: z.int(),
  /** The title that suggests itself, and by what. */
  suggested: z.string(),
  by: TitleBy,
  /** In one sentence. */
  sentence: z.string(),
});
export type PortraitHead = z.infer<typeof PortraitHead>;

/** What is known of a group; numbers of messages are those that its nodes wrote, or that stand behind them. */
export const PortraitBody = PortraitHead.extend({
  authors: z.int(),
  /** How sure the group is: the mean share of further runs in which its nodes stay together, 0 to 1; null where it was not computed. */
  sure: z.number().nullable(),
  addressed: z.array(StandingNode),
  addressing: z.array(StandingNode),
  active: z.array(StandingNode),
  waysOut: z.array(StandingNode),
  outside: z.array(StandingNode),
  /** Weight of ties within it, out of it and into it. */
  within: z.number(),
  out: z.number(),
  into: z.number(),
  ties: z.array(GroupTie),
  things: z.record(PortraitThing, TermLists),
  kinds: z.array(z.object({ kind: MessageKind, messages: z.int(), elsewhere: z.int() })),
  /** Its answers to messages that were collected, and of these the answers to messages of the group itself. */
  answers: z.object({ all: z.int(), within: z.int() }).default({ all: 0, within: 0 }),
  /** Mean scores of its messages that could be scored, and of all others; null where there are none. */
  scores: z.array(
    z.object({
      scorer: Scorer,
      mean: z.number().nullable(),
      scored: z.int(),
      meanElsewhere: z.number().nullable(),
      scoredElsewhere: z.int(),
    }),
  ),
  days: z.array(ActiveDay),
  unusual: z.array(z.number()),
  first: z.number().nullable(),
  last: z.number().nullable(),
  undated: z.int(),
  /** Messages by their numbers: the most passed on, the most answered, those nearest to what is typical, and some by chance. */
  reposted: z.array(z.object({ message: z.int(), times: z.int() })),
  answered: z.array(z.object({ message: z.int(), times: z.int() })),
  nearest: z.array(z.object({ message: z.int(), terms: z.int() })),
  sample: z.array(z.int()),
});
export type PortraitBody = z.infer<typeof PortraitBody>;

/** The researcher's own about a group. */
export const GroupNotes = z.object({
  /** Empty for the one that suggests itself. */
  title: z.string().trim().max(100).default(''),
  memo: z.string().max(20_000).default(''),
  /** Messages that are kept as quotations, by their numbers. */
  quotations: z.array(z.int()).max(200).default([]),
});
export type GroupNotes = z.infer<typeof GroupNotes>;

/** The portraits of a grouping, without what stands in each. */
export const PortraitList = z.object({
  column: z.string(),
  step: z.int(),
  settings: PortraitSettings,
  /** Messages and nodes of the network, and groups that have no portrait, with their nodes. */
  messages: z.int(),
  nodes: z.int(),
  further: z.object({ groups: z.int(), nodes: z.int() }),
  /** Why they no longer say what is; empty while they do. */
  outOfDate: z.string(),
  groups: z.array(PortraitHead.extend({ notes: GroupNotes })),
});
export type PortraitList = z.infer<typeof PortraitList>;

/** A portrait with the messages that it names, as they are now. */
export const FullPortrait = PortraitBody.extend({
  notes: GroupNotes,
  quoted: z.array(Message),
  /** What the nodes are called that it names, by their places. */
  names: z.record(z.string(), z.string()),
});
export type FullPortrait = z.infer<typeof FullPortrait>;

/** How portraits can be saved. */
export const PortraitFormat = z.enum(['html', 'md', 'csv']);
export type PortraitFormat = z.infer<typeof PortraitFormat>;

export const PortraitsQuery = z.object({ column: z.string() });
export const GroupQuery = z.object({ column: z.string(), group: z.string() });

/** Which ties of a node or a group: those that go out or come in, those to and from other groups, or those with the group that is asked of. */
export const TieWay = z.enum(['out', 'in', 'either', 'across', 'with']);
export type TieWay = z.infer<typeof TieWay>;

/** Asks for the messages of a group that a number of its portrait counts. */
export const GroupMessagesQuery = GroupQuery.extend({
  thing: PortraitThing.optional(),
  label: z.string().optional(),
  /** Only of one kind, of one day (UTC, milliseconds since 1970). */
  kind: MessageKind.optional(),
  day: z.coerce.number().optional(),
  /** Those behind ties instead: of a node, by its place, or of the group with another one. */
  node: z.coerce.number().int().min(0).optional(),
  towards: z.string().optional(),
  way: TieWay.optional(),
  /** Only answers to messages of the group itself. */
  answers: z.enum(['within']).optional(),
  /** The messages of the network that are not of the group instead. */
  elsewhere: z.enum(['true', 'false']).default('false'),
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(200).default(50),
});
export type GroupMessagesQuery = z.infer<typeof GroupMessagesQuery>;

/** What the groups of a network are called, by column and by value: the researcher's own titles, else those that suggest themselves. */
export const TitlesByColumn = z.record(z.string(), z.record(z.string(), z.string()));
export type TitlesByColumn = z.infer<typeof TitlesByColumn>;
