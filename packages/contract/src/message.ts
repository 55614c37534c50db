import * as z from 'zod';
import { AddressKind } from './addressKind';

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

const More = {
  /** Counts such as likes, by name; a value beyond 2^53 stays text. */
  numbers: z.record(z.string(), z.union([z.number(), z.string()])),
  attributes: z.record(z.string(), z.string()),
};

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
  /** The video, page or other item under which it stands. */
  itemKey: z.string().nullable(),
  ...More,
});
export type IncomingMessage = z.infer<typeof IncomingMessage>;

/** A video, page or other thing that messages stand under. */
export const IncomingItem = z.object({
  key: z.string(),
  title: z.string(),
  /** The channel or page that published it. */
  channelHandle: z.string().nullable(),
  channelName: z.string().nullable(),
  text: z.string(),
  time: z.number().nullable(),
  link: z.string().nullable(),
  ...More,
});
export type IncomingItem = z.infer<typeof IncomingItem>;

/** What is told of an account beside its handle and name. */
export const Profile = z.object({
  /** Milliseconds since 1970. */
  joined: z.number().nullable(),
  location: z.string().nullable(),
  description: z.string().nullable(),
  /** Counts such as followers, following and posts, by name. */
  ...More,
});
export type Profile = z.infer<typeof Profile>;

/** A profile as a file or a service gave it. */
export const IncomingProfile = z.object({
  row: z.int(),
  handle: z.string(),
  name: z.string().nullable(),
  profile: Profile,
});
export type IncomingProfile = z.infer<typeof IncomingProfile>;

/** One account follows another. */
export const IncomingFollow = z.object({
  follower: z.string(),
  followerName: z.string().nullable(),
  followed: z.string(),
  /** What the list tells of the follower. */
  profile: Profile.nullable(),
});
export type IncomingFollow = z.infer<typeof IncomingFollow>;

/** A stretch of a text that was found to be something: [start, end) in UTF-16 code units. */
export const TextSpan = z.object({
  start: z.int(),
  end: z.int(),
  what: z.enum(['mention', 'hashtag', 'link', 'score']),
  /** The key by which it is known: handle without @, hashtag without #, full address; of a word that made a score what it counts for. */
  key: z.string(),
});
export type TextSpan = z.infer<typeof TextSpan>;

/** Numbers that are given to messages by their texts alone. */
export const Scorer = z.enum(['tone', 'incivility']);
export type Scorer = z.infer<typeof Scorer>;

/** The language of a text (BCP 47; "und" where it cannot be told), and how it is known. */
export const MessageLanguage = z.object({
  code: z
    .string()
    .regex(/^[A-Za-z]{2,8}(?:-[A-Za-z0-9]{1,8})*$/, 'A language is written as en, fr or pt-BR.'),
  how: z.enum(['given', 'found', 'by hand']),
});
export type MessageLanguage = z.infer<typeof MessageLanguage>;

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
  /** The item under which it stands; without a title when the item was not collected. */
  item: z.object({ key: z.string(), title: z.string().nullable() }).nullable(),
  language: MessageLanguage.nullable(),
  /** What the researcher marked it with. */
  starred: z.boolean(),
  note: z.string().nullable(),
  /** What scorers gave it. */
  scores: z.array(z.object({ scorer: Scorer, value: z.number() })).default([]),
  ...More,
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
  language: z.string().optional(),
  /** Only what stands under the item with this key. */
  item: z.string().optional(),
  /** Only messages that have this code, by its name: as it was agreed, or else as any coder gave it. */
  code: z.string().optional(),
  /** Only messages with a star, or with a note. */
  marked: z.enum(['starred', 'noted']).optional(),
  /** Only messages that this scorer gave a value, in the given range. */
  scored: Scorer.optional(),
  scoreFrom: z.coerce.number().optional(),
  scoreUntil: z.coerce.number().optional(),
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

/** A conversation: messages that answer each other, each after the one it answers. */
export const Thread = z.object({
  /** Messages of the whole thread; more than are given when it is long. */
  total: z.int(),
  messages: z.array(z.object({ depth: z.int(), message: Message })),
  /** Whether the message at the top answers one that was not collected. */
  beginsBefore: z.boolean(),
  /** Whether messages answer each other in a circle; they are shown in the order of time. */
  circular: z.boolean(),
});
export type Thread = z.infer<typeof Thread>;

/** A filter of the reading list that was kept under a name. */
export const SavedFilter = z.object({ id: z.int(), name: z.string(), filter: MessageFilter });
export type SavedFilter = z.infer<typeof SavedFilter>;
export const SavedFilterList = z.array(SavedFilter);

/** What the bars of the time chart are parted by. */
export const TimelinePart = z.enum(['none', 'source', 'kind', 'language']);
export type TimelinePart = z.infer<typeof TimelinePart>;
export const TimelineQuery = MessageFilter.extend({ by: TimelinePart.default('none') });

/** Messages per interval, for the time chart: at most some hundred, whatever the dates. */
export const Timeline = z.object({
  unit: z.enum(['hour', 'day', 'week', 'month', 'year']),
  /** Start of each interval in milliseconds since 1970, UTC. */
  starts: z.array(z.number()),
  /** End of the last one. */
  end: z.number(),
  counts: z.array(z.int()),
  /** The counts by source or kind, the largest first; empty when they are not parted. */
  parts: z.array(z.object({ name: z.string(), counts: z.array(z.int()) })),
  /** Messages without a date; they stand in no interval. */
  undated: z.int(),
  /** Messages with dates so far off that they would hide the others, and the time in which all lie. */
  setAside: z.object({ messages: z.int(), from: z.number(), until: z.number() }).nullable(),
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
  /** Languages of the messages, the most frequent first. */
  languages: z.array(z.object({ code: z.string(), messages: z.int() })),
  items: z.int(),
  follows: z.int(),
  /** Names that were found in the texts. */
  names: z.int().default(0),
  /** Scorers that gave something to its messages. */
  scorers: z.array(Scorer).default([]),
  /** The ways in which messages address accounts, as far as they occur. */
  addressKinds: z.array(AddressKind),
  hashtags: z.array(HashtagCount),
  authors: z.array(AccountCount),
});
export type MessageOverview = z.infer<typeof MessageOverview>;

/** What a page of a table is asked with. */
const TableQuery = z.object({
  search: z.string().max(200).default(''),
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100),
  falling: z.enum(['true', 'false']).default('true'),
});
export const AccountQuery = TableQuery.extend({
  by: z.enum(['messages', 'addressed', 'followersHere', 'followingHere', 'handle']).default('messages'),
});
export type AccountQuery = z.infer<typeof AccountQuery>;
export const ItemQuery = TableQuery.extend({
  by: z.enum(['messages', 'authors', 'time', 'title']).default('messages'),
});
export type ItemQuery = z.infer<typeof ItemQuery>;

/** One row of the table of accounts. */
export const AccountRow = z.object({
  id: z.int(),
  handle: z.string(),
  name: z.string().nullable(),
  messages: z.int(),
  /** Messages of others that address it. */
  addressed: z.int(),
  /** Accounts of the study that follow it, and that it follows. */
  followersHere: z.int(),
  followingHere: z.int(),
  first: z.number().nullable(),
  last: z.number().nullable(),
  profile: Profile,
});
export type AccountRow = z.infer<typeof AccountRow>;
export const AccountPage = z.object({ total: z.int(), accounts: z.array(AccountRow) });
export type AccountPage = z.infer<typeof AccountPage>;

/** One row of the table of items. */
export const ItemRow = z.object({
  key: z.string(),
  title: z.string(),
  channel: z.string().nullable(),
  time: z.number().nullable(),
  link: z.string().nullable(),
  /** Comments and answers under it, and their authors. */
  messages: z.int(),
  authors: z.int(),
  numbers: z.record(z.string(), z.union([z.number(), z.string()])),
});
export type ItemRow = z.infer<typeof ItemRow>;
export const ItemPage = z.object({ total: z.int(), items: z.array(ItemRow) });
export type ItemPage = z.infer<typeof ItemPage>;
