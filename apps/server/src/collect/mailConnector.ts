import type { CollectPlan } from '@pebble/contract';
import * as z from 'zod';
import { pages, type Advance, type Connector, type Since } from './connector';
import { ServiceError, type ServiceClient } from './serviceClient';

const CORE = 'urn:ietf:params:jmap:core';
const MAIL = 'urn:ietf:params:jmap:mail';
/** Emails that are asked for together, where the service allows as many. */
const TOGETHER = 50;

/** What is asked of each email (RFC 8621, section 4.1). */
const PROPERTIES = [
  'id',
  'messageId',
  'inReplyTo',
  'references',
  'from',
  'sender',
  'to',
  'cc',
  'bcc',
  'replyTo',
  'subject',
  'sentAt',
  'receivedAt',
  'textBody',
  'bodyValues',
  'attachments',
  'header:List-Id:asText',
];

const Session = z.object({
  capabilities: z.object({ [CORE]: z.object({ maxObjectsInGet: z.int().min(1) }) }),
  accounts: z.record(z.string(), z.object({ name: z.string() })),
  primaryAccounts: z.record(z.string(), z.string()),
  apiUrl: z.string(),
});
const Mailboxes = z.object({
  list: z.array(z.object({ id: z.string(), name: z.string(), totalEmails: z.int() })),
});
const Found = z.object({ ids: z.array(z.string()), total: z.int().optional(), queryState: z.string() });
const Changes = z.object({ newState: z.string(), hasMoreChanges: z.boolean(), created: z.array(z.string()) });
const Emails = z.object({
  list: z.array(z.looseObject({ id: z.string() })),
  notFound: z.array(z.string()).default([]),
  state: z.string(),
});

const Place = z.object({
  apiUrl: z.string(),
  account: z.string(),
  together: z.int(),
  /** Mailboxes that are still to be read; an empty text stands for all together. */
  mailboxes: z.array(z.string()),
  position: z.int(),
  left: z.int(),
  total: z.int(),
  done: z.int(),
  /** The state up to which changes are known, when only what is new is wanted. */
  sinceState: z.string().nullable(),
});
type Place = z.infer<typeof Place>;
type MailPlan = Extract<CollectPlan, { what: 'mail' }>;

/** A mail service that speaks JMAP (RFC 8620 and RFC 8621): session, mailboxes, query, get in batches, changes since last time. */
export const mailConnector: Connector = {
  kind: 'mail',

  async describe(client) {
    const { session, account, together } = await open(client);
    const { list } = Mailboxes.parse(
      await call(client, session.apiUrl, 'Mailbox/get', { accountId: account }),
    );
    return {
      name: session.accounts[account]?.name ?? 'A mail service',
      limits: { pageSize: together, requests: null, windowSeconds: null, mostFound: null, daysBack: null },
      mailboxes: list.map(({ id, name, totalEmails }) => ({ id, name, emails: totalEmails })),
    };
  },

  estimate(plan, { pageSize }) {
    if (plan.what !== 'mail') throw new ServiceError('A mail service has emails only.', false);
    const boxes = Math.max(1, plan.mailboxes.length);
    return { requests: 1 + boxes + 2 * pages(plan.most, pageSize), notes: [] };
  },

  async advance(client, plan, place, since): Promise<Advance> {
    if (plan.what !== 'mail') throw new ServiceError('A mail service has emails only.', false);
    const known = place === null ? await begin(client, plan, since) : Place.parse(place);
    return known.sinceState === null ? readQuery(client, plan, known) : readChanges(client, plan, known);
  },
};

async function open(client: ServiceClient) {
  const found = Session.safeParse(await client.getJson(client.base.href));
  if (!found.success)
    throw new ServiceError('There is no JMAP session at this address (RFC 8620, section 2).', false);
  const session = found.data;
  const account = session.primaryAccounts[MAIL] ?? Object.keys(session.accounts)[0];
  if (account === undefined) throw new ServiceError('This service has no account with emails.', false);
  return { session, account, together: Math.min(TOGETHER, session.capabilities[CORE].maxObjectsInGet) };
}

async function begin(client: ServiceClient, plan: MailPlan, { state }: Since): Promise<Place> {
  const { session, account, together } = await open(client);
  return {
    apiUrl: session.apiUrl,
    account,
    together,
    mailboxes: plan.mailboxes.length > 0 ? plan.mailboxes : [''],
    position: 0,
    left: plan.most,
    total: 0,
    done: 0,
    sinceState: state,
  };
}

async function readQuery(client: ServiceClient, plan: MailPlan, place: Place): Promise<Advance> {
  const [mailbox, ...others] = place.mailboxes;
  const limit = Math.min(place.together, place.left);
  const filter = {
    ...(mailbox ? { inMailbox: mailbox } : {}),
    ...(plan.text ? { text: plan.text } : {}),
    ...(plan.from === null ? {} : { after: utcDate(plan.from) }),
    ...(plan.until === null ? {} : { before: utcDate(plan.until) }),
  };
  const found = Found.parse(
    await call(client, place.apiUrl, 'Email/query', {
      accountId: place.account,
      filter,
      position: place.position,
      limit,
      calculateTotal: true,
    }),
  );
  const { records, notes, state } = await getEmails(client, place, found.ids);
  const left = place.left - found.ids.length;
  const isBoxDone = found.ids.length < limit;
  const next: Place = {
    ...place,
    left,
    mailboxes: isBoxDone ? others : place.mailboxes,
    position: isBoxDone ? 0 : place.position + found.ids.length,
    total: place.position === 0 ? place.total + (found.total ?? 0) : place.total,
    done: place.done + found.ids.length,
  };
  const isDone = left <= 0 || next.mailboxes.length === 0;
  const wanted = Math.min(plan.most, next.total);
  return {
    records,
    place: isDone ? null : next,
    share: wanted > 0 ? Math.min(1, next.done / wanted) : null,
    notes,
    state: isDone ? state : null,
  };
}

/** Only what came since the last run (Email/changes, RFC 8620, section 5.2), of the mailboxes and words that were asked for. */
async function readChanges(client: ServiceClient, plan: MailPlan, place: Place): Promise<Advance> {
  const changes = Changes.parse(
    await call(client, place.apiUrl, 'Email/changes', {
      accountId: place.account,
      sinceState: place.sinceState,
      maxChanges: place.together,
    }),
  );
  const { records, notes } = await getEmails(client, place, changes.created);
  const words = plan.text.toLowerCase().split(/\s+/);
  const wanted = records.filter(({ object }) => {
    const boxes = Object.keys((object as { mailboxIds?: object }).mailboxIds ?? {});
    const text = JSON.stringify(object).toLowerCase();
    return (
      (plan.mailboxes.length === 0 ||
        boxes.length === 0 ||
        boxes.some((box) => plan.mailboxes.includes(box))) &&
      words.every((word) => text.includes(word))
    );
  });
  return {
    records: wanted,
    place: changes.hasMoreChanges ? { ...place, sinceState: changes.newState } : null,
    share: null,
    notes,
    state: changes.hasMoreChanges ? null : changes.newState,
  };
}

async function getEmails(client: ServiceClient, place: Place, ids: readonly string[]) {
  if (ids.length === 0) return { records: [], notes: [], state: null };
  const { list, notFound, state } = Emails.parse(
    await call(client, place.apiUrl, 'Email/get', {
      accountId: place.account,
      ids,
      properties: PROPERTIES,
      fetchTextBodyValues: true,
    }),
  );
  return {
    records: list.map((email) => ({ id: email.id, what: 'messages' as const, object: email })),
    notes: notFound.length > 0 ? [`${notFound.length} emails were not there any more.`] : [],
    state,
  };
}

/** One method call (RFC 8620, section 3.2). */
async function call(client: ServiceClient, apiUrl: string, method: string, given: object): Promise<unknown> {
  const answer = (await client.postJson(apiUrl, {
    using: [CORE, MAIL],
    methodCalls: [[method, given, '0']],
  })) as { methodResponses?: [string, { type?: string; description?: string }, string][] } | null;
  const response = answer?.methodResponses?.[0];
  if (!response) throw new ServiceError('The mail service gave no answer to a method call.', true);
  const [name, result] = response;
  if (name === 'error')
    throw new ServiceError(
      `The mail service refuses ${method}: ${[result.type, result.description].filter(Boolean).join(', ')}.`,
      false,
    );
  return result;
}

/** A UTCDate (RFC 8620, section 1.4). */
function utcDate(time: number): string {
  return `${new Date(time).toISOString().slice(0, 19)}Z`;
}
