import { z } from 'zod';
import { AddressKind } from './weave';

/** The kinds of message that the application tells apart. */
export const MessageKind = z.enum(['post', 'reply', 'repost', 'quote', 'comment', 'email']);
export type MessageKind = z.infer<typeof MessageKind>;

/** An account that a message names as its receiver. */
export const Addressed = z.object({
  handle: z.string(),
  name: z.string().nullable(),
  how: z.enum(['mention', 'to', 'cc', 'bcc']),
});
export type Addressed = z.infer<typeof Addressed>;

/** A message as a file or a service gave it, before it is stored: all ids and names are text. */
export const IncomingMessage = z.object({
  key: z.string(),
  authorHandle: z.string(),
  authorName: z.string().nullable(),
  /** The subject of an email, the title of a post that has one. */
  subject: z.string().nullable(),
  text: z.string(),
  /** Milliseconds since 1970-01-01T00:00Z, or null when the row has no date. */
  time: z.number().nullable(),
  kind: MessageKind,
  parentKey: z.string().nullable(),
  parentHandle: z.string().nullable(),
  /** Accounts that it is sent to, beside those that its text mentions. */
  addressed: z.array(Addressed),
  /** Hashtags that it carries beside those in its text. */
  hashtags: z.array(z.string()),
  link: z.string().nullable(),
  /** Counts such as likes, by name; a value beyond 2^53 stays text. */
  numbers: z.record(z.string(), z.union([z.number(), z.string()])),
  attributes: z.record(z.string(), z.string()),
});
export type IncomingMessage = z.infer<typeof IncomingMessage>;

/** A stretch of a text that was found to be something: [start, end) in UTF-16 code units. */
export const TextSpan = z.object({
  start: z.int(),
  end: z.int(),
  what: z.enum(['mention', 'hashtag', 'link']),
  /** The key by which it is known: handle without @, hashtag without #, full address. */
  key: z.string(),
});
export type TextSpan = z.infer<typeof TextSpan>;

/** A stored message as the reading list shows it. */
export const Message = z.object({
  id: z.int(),
  key: z.string(),
  source: z.string(),
  author: z.object({ id: z.int(), handle: z.string(), name: z.string().nullable() }),
  subject: z.string().nullable(),
  text: z.string(),
  spans: z.array(TextSpan),
  time: z.number().nullable(),
  kind: MessageKind,
  /** The message that it answers or passes on, where that was collected too. */
  parent: z.object({ id: z.int().nullable(), key: z.string(), handle: z.string().nullable() }).nullable(),
  /** The receivers of an email; empty for other messages. */
  addressed: z.array(Addressed),
  link: z.string().nullable(),
  numbers: z.record(z.string(), z.union([z.number(), z.string()])),
  attributes: z.record(z.string(), z.string()),
});
export type Message = z.infer<typeof Message>;

/** What restricts the reading list; all given parts must hold. */
export const MessageFilter = z.object({
  text: z.string().optional(),
  author: z.string().optional(),
  mentions: z.string().optional(),
  hashtag: z.string().optional(),
  kind: MessageKind.optional(),
  source: z.coerce.number().int().optional(),
  /** From this moment on, and before that moment: milliseconds since 1970. */
  from: z.coerce.number().optional(),
  until: z.coerce.number().optional(),
  /** So many messages, drawn at random with the seed from those that fit. */
  sample: z.coerce.number().int().min(1).max(10_000).optional(),
  seed: z.coerce.number().int().min(0).max(0xffffffff).optional(),
});
export type MessageFilter = z.infer<typeof MessageFilter>;

export const MessageQuery = MessageFilter.extend({
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(200).default(50),
});
export type MessageQuery = z.infer<typeof MessageQuery>;

export const MessagePage = z.object({
  total: z.int(),
  offset: z.int(),
  messages: z.array(Message),
});
export type MessagePage = z.infer<typeof MessagePage>;

/** Messages per day or hour, for the time chart. */
export const Timeline = z.object({
  unit: z.enum(['hour', 'day', 'week', 'month']),
  /** Start of each interval in milliseconds since 1970, UTC. */
  starts: z.array(z.number()),
  counts: z.array(z.int()),
  /** Messages without a date; they stand in no interval. */
  undated: z.int(),
});
export type Timeline = z.infer<typeof Timeline>;

export const HashtagCount = z.object({ tag: z.string(), messages: z.int() });
export const AccountCount = z.object({
  id: z.int(),
  handle: z.string(),
  name: z.string().nullable(),
  messages: z.int(),
});

/** What a study's messages are, at a glance. */
export const MessageOverview = z.object({
  messages: z.int(),
  accounts: z.int(),
  from: z.number().nullable(),
  until: z.number().nullable(),
  kinds: z.array(z.object({ kind: MessageKind, messages: z.int() })),
  /** The ways in which messages address accounts, as far as they occur. */
  addressKinds: z.array(AddressKind),
  hashtags: z.array(HashtagCount),
  authors: z.array(AccountCount),
});
export type MessageOverview = z.infer<typeof MessageOverview>;
