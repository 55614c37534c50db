import type { CollectPlan, ServiceDescription, ServiceLimits } from '@pebble/contract';
import { parseTemplate } from 'url-template';
import { idOf, isObject, list, type Json } from '@pebble/core/files';
import * as z from 'zod';
import { pages, type Advance, type Collected, type Connector, type Since } from './connector';
import { ServiceError, type ServiceClient } from './serviceClient';

/** Accounts whose details are asked for at once. */
const BATCH = 40;
const UNSAID: ServiceLimits = {
  pageSize: 20,
  requests: null,
  windowSeconds: null,
  mostFound: null,
  daysBack: null,
};

const Description = z.object({
  name: z.string().default('A hub'),
  endpoints: z.object({
    search: z.string().optional(),
    actor: z.string().optional(),
    accounts: z.string().optional(),
    object: z.string().optional(),
    /** How the addresses of links begin that the service shortens. */
    shortLinks: z.string().optional(),
  }),
  limits: z
    .object({
      pageSize: z.int().min(1),
      requests: z.int().min(1).nullable().default(null),
      windowSeconds: z.number().positive().nullable().default(null),
      mostFound: z.int().min(1).nullable().default(null),
      daysBack: z.number().positive().nullable().default(null),
    })
    .optional(),
});
type Endpoints = z.infer<typeof Description>['endpoints'];

/** One thing to do next; the place of a run is the list of them. */
const Task = z.discriminatedUnion('do', [
  z.object({
    do: z.literal('page'),
    url: z.string(),
    left: z.int(),
    /** Whose followers the page lists; null for a page of messages. */
    followed: z.string().nullable(),
    details: z.boolean(),
    /** Messages of before this moment are not wanted. */
    since: z.number().nullable(),
  }),
  z.object({
    do: z.literal('actor'),
    name: z.string(),
    then: z.enum(['outbox', 'followers']),
    left: z.int(),
    details: z.boolean(),
    since: z.number().nullable(),
  }),
  z.object({
    do: z.literal('item'),
    name: z.string(),
    left: z.int(),
    order: z.string(),
    since: z.number().nullable(),
  }),
  z.object({ do: z.literal('details'), ids: z.array(z.string()), followed: z.string().nullable() }),
]);
type Task = z.infer<typeof Task>;
const Place = z.object({ endpoints: Description.shape.endpoints, tasks: z.array(Task), begun: z.int() });
type Place = z.infer<typeof Place>;

type Step = Omit<Advance, 'place' | 'share'> & { readonly next: readonly Task[] };

/** A social hub that speaks ActivityStreams 2.0 (W3C Recommendation, 2017) with collections in pages. */
export const hubConnector: Connector = {
  kind: 'hub',

  async describe(client): Promise<ServiceDescription> {
    const { name, limits } = await description(client);
    return { name, limits: limits ?? UNSAID, mailboxes: [] };
  },

  estimate(plan, limits) {
    const { pageSize, mostFound, daysBack } = limits;
    switch (plan.what) {
      case 'search': {
        const most = Math.min(plan.most, mostFound ?? plan.most);
        const notes: string[] = [];
        if (mostFound !== null && plan.most > mostFound)
          notes.push(`One search gives at most ${mostFound} messages, fewer than asked for.`);
        if (daysBack !== null) notes.push(`A search reaches about ${daysBack} days back.`);
        return { requests: pages(most, pageSize), notes };
      }
      case 'posts':
        return { requests: plan.accounts.length * (1 + pages(plan.most, pageSize)), notes: [] };
      case 'comments':
        return {
          requests: plan.items.length * (1 + pages(plan.most, pageSize)),
          notes: [
            'Comments are the first of each item; answers to them come as far as they are among these.',
          ],
        };
      case 'followers': {
        const each = 1 + pages(plan.most, pageSize) + (plan.details ? pages(plan.most, BATCH) : 0);
        return { requests: plan.accounts.length * each, notes: [] };
      }
      case 'details':
        return {
          requests: pages(plan.accounts.length, BATCH),
          notes: ['Details are kept for accounts that are in the study.'],
        };
      case 'mail':
        throw new ServiceError('A hub has no emails.', false);
    }
  },

  async advance(client, plan, place, since, isNew): Promise<Advance> {
    const known = place === null ? await begin(client, plan, since) : Place.parse(place);
    const [task, ...rest] = known.tasks;
    if (!task) return { records: [], place: null, share: 1 };
    const { next, records, ...said } = await run(client, known.endpoints, task, isNew);
    const tasks = [...next, ...rest];
    const expanded = await expandLinks(client, known.endpoints.shortLinks, records);
    return {
      ...said,
      records,
      expandedLinks: expanded,
      place: tasks.length > 0 ? { ...known, tasks } : null,
      share: shareOf(tasks, known.begun, plan),
    };
  },
};

/** How far a run is: of the things that the plan names, those that are done, and of the one at hand what has come of it. */
function shareOf(tasks: readonly Task[], begun: number, plan: CollectPlan): number {
  const waiting = tasks.filter((task) => task.do === 'actor' || task.do === 'item').length;
  const page = tasks.find((task) => task.do === 'page');
  const left = page && 'most' in plan ? page.left / plan.most : tasks.length > waiting ? 0.02 : 0;
  return Math.max(0, Math.min(1, 1 - (waiting + left) / Math.max(1, begun)));
}

async function description(client: ServiceClient): Promise<z.infer<typeof Description>> {
  const found = Description.safeParse(await client.getJson(client.base.href));
  if (!found.success)
    throw new ServiceError('There is no hub at this address: it does not say what it offers.', false);
  return found.data;
}

async function begin(client: ServiceClient, plan: CollectPlan, since: Since): Promise<Place> {
  const { endpoints } = await description(client);
  const tasks = firstTasks(plan, endpoints, since);
  return { endpoints, tasks, begun: tasks.length };
}

function firstTasks(plan: CollectPlan, endpoints: Endpoints, since: Since): Task[] {
  switch (plan.what) {
    case 'search': {
      const from = Math.max(plan.from ?? 0, since.time ?? 0);
      const url = expandTemplate(offered(endpoints.search, 'a search'), {
        q: plan.query,
        lang: plan.language,
        from: from > 0 ? String(from) : '',
        until: plan.until === null ? '' : String(plan.until),
      });
      return [{ do: 'page', url, left: plan.most, followed: null, details: false, since: null }];
    }
    case 'posts':
      return plan.accounts.map((name) => ({
        do: 'actor',
        name,
        then: 'outbox',
        left: plan.most,
        details: false,
        since: since.time,
      }));
    case 'comments':
      return plan.items.map((name) => ({
        do: 'item',
        name,
        left: plan.most,
        order: plan.order,
        since: since.time,
      }));
    case 'followers':
      return plan.accounts.map((name) => ({
        do: 'actor',
        name,
        then: 'followers',
        left: plan.most,
        details: plan.details,
        since: null,
      }));
    case 'details': {
      const batches: Task[] = [];
      for (let at = 0; at < plan.accounts.length; at += BATCH)
        batches.push({ do: 'details', ids: plan.accounts.slice(at, at + BATCH), followed: null });
      return batches;
    }
    case 'mail':
      throw new ServiceError('A hub has no emails.', false);
  }
}

function offered(template: string | undefined, what: string): string {
  if (template === undefined) throw new ServiceError(`This service does not offer ${what}.`, false);
  return template;
}

/** Fills a URI template (RFC 6570); values that are empty are left out. */
export function expandTemplate(
  template: string,
  values: Readonly<Record<string, string | readonly string[]>>,
): string {
  const there = Object.entries(values)
    .filter(([, value]) => value.length > 0)
    .map(([name, value]): [string, string | string[]] => [
      name,
      typeof value === 'string' ? value : [...value],
    ]);
  return parseTemplate(template).expand(Object.fromEntries(there));
}

async function run(
  client: ServiceClient,
  endpoints: Endpoints,
  task: Task,
  isNew: (id: string) => boolean,
): Promise<Step> {
  switch (task.do) {
    case 'actor':
      return openActor(client, endpoints, task);
    case 'item':
      return openItem(client, endpoints, task);
    case 'details':
      return readDetails(client, endpoints, task);
    case 'page':
      return readPage(client, task, isNew);
  }
}

async function openActor(
  client: ServiceClient,
  endpoints: Endpoints,
  { name, then, left, details, since }: Extract<Task, { do: 'actor' }>,
): Promise<Step> {
  const handle = name.trim().replace(/^@/, '');
  const url = client.isOwn(handle)
    ? handle
    : expandTemplate(offered(endpoints.actor, 'accounts by name'), { name: handle.split('@')[0] });
  const actor = await client.getJson(url);
  if (!isObject(actor)) return { records: [], next: [], notes: [`There is no account “${handle}”.`] };
  const collection = idOf(actor[then]);
  if (collection === null)
    return { records: [], next: [], notes: [`The account “${handle}” does not show its ${then}.`] };
  return {
    records: [{ id: idOf(actor) ?? handle, what: 'profiles', object: actor }],
    next: [
      {
        do: 'page',
        url: collection,
        left,
        followed: then === 'followers' ? (idOf(actor) ?? handle) : null,
        details,
        since,
      },
    ],
  };
}

async function openItem(
  client: ServiceClient,
  endpoints: Endpoints,
  { name, left, order, since }: Extract<Task, { do: 'item' }>,
): Promise<Step> {
  const id =
    name
      .replace(/[?#].*$/, '')
      .split('/')
      .filter((part) => part !== '')
      .at(-1) ?? name;
  const url = client.isOwn(name) ? name : expandTemplate(offered(endpoints.object, 'items by id'), { id });
  const item = await client.getJson(url);
  if (!isObject(item)) return { records: [], next: [], notes: [`There is no item “${name}”.`] };
  const replies = idOf(item['replies']);
  const next: Task[] =
    replies === null
      ? []
      : [
          {
            do: 'page',
            url: `${replies}?order=${order}`,
            left,
            followed: null,
            details: false,
            since,
          },
        ];
  return { records: [recordOf(item)], next };
}

async function readDetails(
  client: ServiceClient,
  endpoints: Endpoints,
  { ids, followed }: Extract<Task, { do: 'details' }>,
): Promise<Step> {
  const url = expandTemplate(offered(endpoints.accounts, 'details of accounts'), { id: ids });
  const found = await client.getJson(url);
  const actors = isObject(found) ? list(found['items'] ?? found['orderedItems']).filter(isObject) : [];
  const records = actors.map((actor): Collected => {
    const id = idOf(actor) ?? '';
    return followed === null
      ? { id, what: 'profiles', object: actor }
      : { id: `${id} ${followed}`, what: 'follows', object: { type: 'Follow', actor, object: followed } };
  });
  const gone = ids.length - actors.length;
  return { records, next: [], ...(gone > 0 ? { notes: [`${gone} accounts are not there any more.`] } : {}) };
}

async function readPage(
  client: ServiceClient,
  task: Extract<Task, { do: 'page' }>,
  isNew: (id: string) => boolean,
): Promise<Step> {
  const page = await client.getJson(task.url);
  if (!isObject(page)) return { records: [], next: [], notes: ['A page was not there any more.'] };
  const everything = list(page['orderedItems'] ?? page['items']);
  const items = everything.filter((item) => task.since === null || !isBefore(item, task.since));
  const all = items.map((item) => (task.followed === null ? recordOf(item) : followOf(item, task.followed)));
  // Pages move while one reads: what came before does not count towards what is wanted.
  const fresh = all.filter(({ id }) => isNew(id));
  const taken = fresh.slice(0, task.left);
  const records = [...taken, ...all.filter(({ id }) => !isNew(id))];
  const left = task.left - taken.length;
  const nextUrl = idOf(page['next']) ?? (everything.length === 0 ? idOf(page['first']) : null);
  const more: Task[] = nextUrl !== null && left > 0 ? [{ ...task, url: nextUrl, left }] : [];
  const cut = left <= 0 && (nextUrl !== null || fresh.length > taken.length);
  const ended = more.length > 0 ? {} : { list: cut ? ('cut' as const) : ('whole' as const) };
  if (task.followed !== null && task.details) {
    const ids = taken.map(({ object }) => idOf((object as Json)['actor']) ?? '').filter((id) => id !== '');
    const details: Task[] = [];
    for (let at = 0; at < ids.length; at += BATCH)
      details.push({ do: 'details', ids: ids.slice(at, at + BATCH), followed: task.followed });
    // The follow itself comes with the details of the follower.
    return { records: [], next: [...details, ...more], ...ended };
  }
  return { records, next: more, ...ended };
}

/** Whether an object was published before a moment; what has no date is not. */
function isBefore(item: unknown, moment: number): boolean {
  const published = isObject(item) ? item['published'] : undefined;
  return typeof published === 'string' && Date.parse(published) < moment;
}

function followOf(item: unknown, followed: string): Collected {
  const actor = isObject(item) && item['type'] === 'Follow' ? item['actor'] : item;
  return {
    id: `${idOf(actor) ?? JSON.stringify(actor)} ${followed}`,
    what: 'follows',
    object: { type: 'Follow', actor, object: followed },
  };
}

const ITEMS = ['Video', 'Audio', 'Image', 'Document', 'Event', 'Page'];

function recordOf(item: unknown): Collected {
  const object =
    isObject(item) && (item['type'] === 'Create' || item['type'] === 'Update') ? item['object'] : item;
  const type = isObject(object) ? object['type'] : undefined;
  const what =
    type === 'Tombstone'
      ? 'deleted'
      : typeof type === 'string' && ITEMS.includes(type)
        ? 'items'
        : 'messages';
  return { id: idOf(object) ?? JSON.stringify(item), what, object: item };
}

/** Short links of the service itself are asked where they lead; both are kept. Returns how many were expanded. */
async function expandLinks(
  client: ServiceClient,
  prefix: string | undefined,
  records: readonly Collected[],
): Promise<number> {
  if (prefix === undefined || !client.isOwn(prefix)) return 0;
  let expanded = 0;
  const known = new Map<string, string | null>();
  for (const { object } of records) {
    if (!isObject(object)) continue;
    const texts = JSON.stringify([object['content'], object['contentMap']]);
    const links = [...new Set(texts.match(/https?:\/\/[^\s"'<>\\]+/g) ?? [])].filter((link) =>
      link.startsWith(prefix),
    );
    const attachment = [...list(object['attachment'])];
    for (const link of links) {
      if (!known.has(link)) known.set(link, await client.expand(link));
      const target = known.get(link);
      if (!target) continue;
      expanded++;
      attachment.push({ type: 'Link', href: target, name: link });
    }
    if (links.length > 0) (object as Record<string, unknown>)['attachment'] = attachment;
  }
  return expanded;
}
