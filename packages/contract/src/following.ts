import * as z from 'zod';
import { PortraitThing } from './portraits';

/** The column in which slices, and their whole, say to which line each node belongs: a group that goes on through time. */
export const THROUGH_TIME = 'through time';

export const FollowSettings = z.object({
  /** The least Jaccard coefficient of two groups that are one in two slices. */
  threshold: z.number().min(0.01).max(1).default(0.2),
  /** Groups of fewer nodes are not followed. */
  least: z.int().min(2).max(10_000).default(3),
  /** In so many slices on end a group may be missing, and be the same afterwards. */
  patience: z.int().min(0).max(20).default(1),
});
export type FollowSettings = z.infer<typeof FollowSettings>;

export const Happening = z.enum(['begins', 'returns', 'grows', 'shrinks', 'stays']);

/** A line by its value in the column; "1" is the one with most nodes over all slices. */
const line = z.string();

/** A line in one slice. */
export const LineInSlice = z.object({
  /** The place of the slice. */
  slice: z.int(),
  line,
  nodes: z.int(),
  happening: Happening,
  /** How alike it is to the group before it, Jaccard, and the nodes of that; null where it begins. */
  alike: z.number().nullable(),
  before: z.int().nullable(),
  splitFrom: line.nullable(),
  joinedBy: z.array(line),
  /** Its nodes that are not in the next slice at all; null in the last one. */
  gone: z.int().nullable(),
});
export type LineInSlice = z.infer<typeof LineInSlice>;

/** How the groups of slices go on through time. */
export const Following = z.object({
  /** The column whose groups are followed. */
  column: z.string(),
  step: z.int(),
  settings: FollowSettings,
  /** Why it no longer says what is; empty while it does. */
  outOfDate: z.string(),
  /** In the order of time; nodes that are in none of the lines are those of groups that are too small, or in none. */
  slices: z.array(z.object({ network: z.string(), title: z.string(), nodes: z.int(), followed: z.int() })),
  /** The largest first. */
  lines: z.array(
    z.object({
      line,
      first: z.int(),
      last: z.int(),
      nodes: z.int(),
      joined: line.nullable(),
      hasEnded: z.boolean(),
    }),
  ),
  groups: z.array(LineInSlice),
  /** Nodes that are in a line in one slice and in one in the next; all smaller lines are one, which has no name. */
  bands: z.array(z.object({ slice: z.int(), from: line, to: line, nodes: z.int() })),
  /** Smaller lines of which nothing is told, and their nodes over all slices. */
  further: z.object({ lines: z.int(), nodes: z.int() }),
});
export type Following = z.infer<typeof Following>;

/** Asks for the nodes of a line in a slice: all, those that are in another line in the next one, or those that are not in the next one. */
export const FollowedNodesQuery = z.object({
  slice: z.coerce.number().int().min(0),
  line,
  to: line.optional(),
  gone: z.enum(['true', 'false']).default('false'),
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100),
});
export type FollowedNodesQuery = z.infer<typeof FollowedNodesQuery>;

/** Those with most ties first; nodes by their places in the slice's table. */
export const FollowedNodes = z.object({
  total: z.int(),
  offset: z.int(),
  nodes: z.array(z.object({ node: z.int(), label: z.string(), strength: z.number() })),
});
export type FollowedNodes = z.infer<typeof FollowedNodes>;

/** What is followed over slices: what stands in messages, accounts by the messages that they wrote, or by those that address them. */
export const OverTimeThing = z.enum([...PortraitThing.options, 'author', 'addressed']);
export type OverTimeThing = z.infer<typeof OverTimeThing>;

export const OverTimeQuery = z.object({
  thing: OverTimeThing,
  /** What fewer authors wrote makes no trend. */
  leastAuthors: z.coerce.number().int().min(1).max(1000).default(3),
  /** Ranks of each slice, and of what rises and falls. */
  most: z.coerce.number().int().min(1).max(50).default(10),
});
export type OverTimeQuery = z.infer<typeof OverTimeQuery>;

/** Messages of each slice in which something stands. */
const OverTimeRow = z.object({
  label: z.string(),
  counts: z.array(z.int()),
  authors: z.int(),
  /** Its place in the node table of each slice, where it is a node; null where it is not there. */
  nodes: z.array(z.int().nullable()).optional(),
});
export const LeadingRow = OverTimeRow.extend({ ranks: z.array(z.int().nullable()) });
export type LeadingRow = z.infer<typeof LeadingRow>;
export const TrendRow = OverTimeRow.extend({
  /** Standard deviations by which its share rises (above 0) or falls. */
  z: z.number(),
  /** Share in the later half over that in the earlier; null where it begins in the later. */
  times: z.number().nullable(),
});
export type TrendRow = z.infer<typeof TrendRow>;

/** What leads in the slices of a network, and what rises and falls over them beyond chance. */
export const OverTime = z.object({
  /** With their messages; where accounts are addressed, with how often any is. */
  slices: z.array(z.object({ network: z.string(), title: z.string(), messages: z.int() })),
  leading: z.array(LeadingRow),
  rising: z.array(TrendRow),
  falling: z.array(TrendRow),
  tested: z.int(),
  clear: z.int(),
  tooFew: z.int(),
});
export type OverTime = z.infer<typeof OverTime>;
