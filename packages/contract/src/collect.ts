import * as z from 'zod';
import { pageOf } from './page';

/** Open standards that services speak: ActivityStreams 2.0 over HTTP, and JMAP for mail (RFC 8620, 8621). */
export const ServiceKind = z.enum(['hub', 'mail']);
export type ServiceKind = z.infer<typeof ServiceKind>;

/** What stands in an address would stand in the logbook, too. */
function hasNoPassword(address: string): boolean {
  const { username, password } = new URL(address);
  return username === '' && password === '';
}

/** Names by which this machine calls itself in addresses. */
export const OWN_HOSTS: readonly string[] = ['127.0.0.1', 'localhost', '[::1]'];

/** What is sent to another machine, secrets among it, is never sent in the open. */
function isCovered(address: string): boolean {
  const { protocol, hostname } = new URL(address);
  return protocol === 'https:' || OWN_HOSTS.includes(hostname);
}

export const Service = z.object({
  kind: ServiceKind,
  name: z.string().trim().min(1).max(100),
  address: z
    .url({ protocol: /^https?$/, error: 'An address begins with https:// or http://.' })
    .refine(
      hasNoPassword,
      'An address holds no name and password; give the client id and the secret for themselves.',
    )
    .refine(isCovered, 'The address of a service on another machine begins with https://.'),
});
export type Service = z.infer<typeof Service>;

/** A service as it is offered: its secret stays on the server. */
export const KnownService = Service.extend({
  clientId: z.string(),
  hasSecret: z.boolean(),
  /** A small imitation that ships with the application. */
  simulated: z.boolean(),
});
export type KnownService = z.infer<typeof KnownService>;
export const KnownServiceList = z.array(KnownService);

/** A service with the means to enter it; the secret is kept out of the logbook, of exports and of messages. */
export const ServiceAccess = z.object({
  service: Service,
  clientId: z.string().trim().max(300),
  /** Empty for the secret that is kept already. */
  secret: z.string().max(2000),
});
export type ServiceAccess = z.infer<typeof ServiceAccess>;

/** What a service allows, as far as it says so. */
export const ServiceLimits = z.object({
  pageSize: z.int().min(1),
  /** Requests in each window of so many seconds; null when it does not say. */
  requests: z.int().min(1).nullable(),
  windowSeconds: z.number().positive().nullable(),
  /** Messages that one search gives at most, and how many days back it reaches. */
  mostFound: z.int().min(1).nullable(),
  daysBack: z.number().positive().nullable(),
});
export type ServiceLimits = z.infer<typeof ServiceLimits>;

export const ServiceDescription = z.object({
  name: z.string(),
  limits: ServiceLimits,
  /** Mailboxes of a mail service, with the emails in each. */
  mailboxes: z.array(z.object({ id: z.string(), name: z.string(), emails: z.int() })),
});
export type ServiceDescription = z.infer<typeof ServiceDescription>;

const Most = z.int().min(1, 'Ask for at least one.').max(1_000_000);
const Handles = z.array(z.string().trim().min(1)).min(1, 'Name at least one account.').max(1000);

/** What is to be collected, and how much of it. */
export const CollectPlan = z.discriminatedUnion('what', [
  z.object({
    what: z.literal('search'),
    query: z.string().trim().min(1, 'Say what to search for.').max(1000),
    language: z.string().max(20).default(''),
    from: z.number().nullable().default(null),
    until: z.number().nullable().default(null),
    most: Most,
  }),
  z.object({ what: z.literal('posts'), accounts: Handles, most: Most }),
  z.object({
    what: z.literal('comments'),
    /** Ids or addresses of videos, pages or posts. */
    items: z.array(z.string().trim().min(1)).min(1, 'Name at least one item.').max(1000),
    most: Most,
    order: z.enum(['rating', 'time']).default('rating'),
  }),
  z.object({
    what: z.literal('followers'),
    accounts: Handles,
    most: Most,
    details: z.boolean().default(true),
  }),
  z.object({ what: z.literal('details'), accounts: Handles }),
  z.object({
    what: z.literal('mail'),
    /** Ids of mailboxes; all when empty. */
    mailboxes: z.array(z.string()).default([]),
    text: z.string().max(1000).default(''),
    from: z.number().nullable().default(null),
    until: z.number().nullable().default(null),
    most: Most,
  }),
]);
export type CollectPlan = z.infer<typeof CollectPlan>;

/** What a plan costs at most, before it begins. */
export const CollectEstimate = z.object({
  requests: z.int(),
  /** Time that is spent waiting for the budget. */
  waitSeconds: z.number(),
  notes: z.array(z.string()),
});
export type CollectEstimate = z.infer<typeof CollectEstimate>;

export const RunState = z.enum(['running', 'waiting', 'paused', 'storing', 'done', 'cancelled', 'failed']);
export type RunState = z.infer<typeof RunState>;

export const RunCounts = z.object({
  requests: z.int().default(0),
  messages: z.int().default(0),
  items: z.int().default(0),
  follows: z.int().default(0),
  profiles: z.int().default(0),
  /** Came again while the service's pages moved. */
  repeated: z.int().default(0),
  deleted: z.int().default(0),
  expandedLinks: z.int().default(0),
  /** Lists (of a search, an account, an item) that were read to their end, and that were cut where enough had come. */
  wholeLists: z.int().default(0),
  cutLists: z.int().default(0),
  /** Answers 429 and 5xx, and new tokens in the middle. */
  limited: z.int().default(0),
  faults: z.int().default(0),
  tokens: z.int().default(0),
  waitedSeconds: z.number().default(0),
});
export type RunCounts = z.infer<typeof RunCounts>;

/** A collecting run: it goes on where it was, also after the application was stopped. */
export const CollectRun = z.object({
  id: z.string(),
  study: z.string(),
  name: z.string(),
  service: Service,
  plan: CollectPlan,
  state: RunState,
  counts: RunCounts,
  /** 0 to 1; null while it cannot be told. */
  share: z.number().nullable(),
  /** Until when it waits for the budget, milliseconds since 1970. */
  waitUntil: z.number().nullable(),
  /** Why less came than was asked for, and what else is to be known. */
  notes: z.array(z.string()),
  error: z.string().nullable(),
  /** The source that its messages became. */
  source: z.int().nullable(),
  /** The run that this one goes on from, for new messages only. */
  previous: z.string().nullable(),
  createdAt: z.string(),
  endedAt: z.string().nullable(),
});
export type CollectRun = z.infer<typeof CollectRun>;
/** The newest first. */
export const CollectRunPage = pageOf('runs', CollectRun);
export type CollectRunPage = z.infer<typeof CollectRunPage>;

export const NewRun = z.object({
  name: z.string().trim().min(1, 'Give the run a name.').max(100),
  access: ServiceAccess,
  plan: CollectPlan,
});
export type NewRun = z.infer<typeof NewRun>;

export const RunCommand = z.enum(['pause', 'resume', 'cancel', 'again', 'forget']);
export type RunCommand = z.infer<typeof RunCommand>;
