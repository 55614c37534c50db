import type {
  MessagePage,
  SpreadMessagesRequest,
  SpreadOf,
  SpreadOffers,
  SpreadOffersQuery,
} from '@pebble/contract';
import { sameText } from '@pebble/core/files';
import { BOUND_LIST } from '../storage/lists';
import { readMessagesById } from '../storage/messages';
import type { OccurrenceScope } from '../storage/occurrenceRows';
import { readSame } from '../storage/occurrences';
import type { Store } from '../storage/open';
import { accountsIn } from './accountGroups';
import { accountsNow } from './messagesOf';
import { readPortraitThings } from './portraitThings';
import { messagesWith } from './readPortraits';

/** Passed on at most so many times in a row: longer chains are no spreading. */
const DEEPEST = 1000;
/** Offers of a sort. */
const OFFERED = 30;
/** Letters of a text by which it is offered. */
const WORDS = 140;

/** What spread as it is called, and the numbers of its messages. */
export async function messagesOfSpread(
  store: Store,
  of: SpreadOf,
): Promise<{ readonly name: string; readonly messages: readonly number[] }> {
  switch (of.what) {
    case 'message': {
      const text = textOf(store, of.message);
      return {
        name: text === null ? 'this message' : `“${shortly(text, 60)}”`,
        messages: passedOn(store, of.message),
      };
    }
    case 'text': {
      const text = textOf(store, of.message);
      if (text === null) return { name: 'this text', messages: [] };
      return { name: `“${shortly(text, 60)}”`, messages: withSameText(store, text) };
    }
    case 'hashtag':
    case 'link':
      return { name: of.label, messages: await messagesWith(store, of.what, of.label) };
  }
}

/** The messages of a spread that are asked for, in the order of time. */
export async function readSpreadMessages(
  store: Store,
  { of, author, from, until, within, offset, limit }: SpreadMessagesRequest,
): Promise<MessagePage> {
  const { messages } = await messagesOfSpread(store, of);
  const tidy = await accountsNow(store);
  const inGroup = within && (await accountsIn(store, within.network, within.column)).groupOf;
  const rows = store.raw
    .prepare(
      `select id, author_id, time from message where id in ${BOUND_LIST} order by time is null, time, id`,
    )
    .raw()
    .all(JSON.stringify(messages)) as [number, number, number | null][];
  const wanted = rows.filter(([, account, time]) => {
    const own = tidy.now ? tidy.now(account) : account;
    return (
      (author === undefined || (tidy.labels.get(own) ?? '') === author) &&
      (from === undefined || (time !== null && time >= from)) &&
      (until === undefined || (time !== null && time < until)) &&
      (!within || inGroup?.get(own) === within.group)
    );
  });
  const page = wanted.slice(offset, offset + limit).map(([id]) => id);
  return { total: wanted.length, offset, messages: await readMessagesById(store, page) };
}

/** What many accounts have: messages that others pass on, texts, hashtags, links. */
export async function readSpreadOffers(
  store: Store,
  { what, search }: SpreadOffersQuery,
): Promise<SpreadOffers> {
  const found = what === 'message' ? passedOnMost(store) : await usedByMost(store, what);
  const asked = search.trim().toLowerCase();
  const fitting = asked === '' ? found : found.filter(({ words }) => words.toLowerCase().includes(asked));
  return { total: fitting.length, offers: fitting.slice(0, OFFERED) };
}

function passedOnMost({ raw }: Store): SpreadOffers['offers'] {
  const rows = raw
    .prepare(
      `select p.id, p.text, count(distinct m.author_id) as accounts from message m join message p on p.key = m.parent_key
        where m.kind in ('repost', 'quote') group by p.id having accounts > 1 order by accounts desc, p.id`,
    )
    .raw()
    .all() as [number, string, number][];
  return rows.map(([message, text, accounts]) => ({
    of: { what: 'message', message },
    words: shortly(text, WORDS),
    // Whoever wrote it has it too.
    accounts: accounts + 1,
  }));
}

/** Things by how many accounts have them; those that one has alone have not spread. */
async function usedByMost(store: Store, what: 'text' | 'hashtag' | 'link'): Promise<SpreadOffers['offers']> {
  const { occurrences, labelOf } =
    what === 'text' ? readSame(store, ALL, 'text') : await readPortraitThings(store, what);
  const { count, thing, author, message } = occurrences;
  const accounts = new Map<number, number>();
  const first = new Map<number, number>();
  const seen = new Set<string>();
  for (let i = 0; i < count; i++) {
    const pair = `${thing[i]} ${author[i]}`;
    if (seen.has(pair)) continue;
    seen.add(pair);
    accounts.set(thing[i], (accounts.get(thing[i]) ?? 0) + 1);
    if (!first.has(thing[i])) first.set(thing[i], message[i]);
  }
  return [...accounts]
    .filter(([, own]) => own > 1)
    .sort(([a, n], [b, m]) => m - n || a - b)
    .map(([one, own]): SpreadOffers['offers'][number] => ({
      of: what === 'text' ? { what, message: first.get(one)! } : { what, label: labelOf(one) },
      words: labelOf(one),
      accounts: own,
    }));
}

const ALL: OccurrenceScope = { from: null, until: null, reposts: true };

/** Messages with the same words; of a text of few words those that are the same letter by letter. */
function withSameText(store: Store, text: string): number[] {
  const key = sameText(text);
  if (key === '')
    return store.raw
      .prepare('select id from message where text = ? order by id')
      .pluck()
      .all(text) as number[];
  const { occurrences, labelOf } = readSame(store, ALL, 'text');
  const found: number[] = [];
  let wanted = -1;
  for (let i = 0; i < occurrences.count; i++) {
    if (wanted < 0 && labelOf(occurrences.thing[i]) === key) wanted = occurrences.thing[i];
    if (occurrences.thing[i] === wanted) found.push(occurrences.message[i]);
  }
  return found;
}

/** A message, and all that pass it on: reposts and quotes of it, and of these. */
function passedOn({ raw }: Store, message: number): number[] {
  return raw
    .prepare(
      `with recursive spread(id, key, depth) as (
         select id, key, 0 from message where id = ?
         union
         select m.id, m.key, s.depth + 1 from spread s join message m on m.parent_key = s.key
           where m.kind in ('repost', 'quote') and s.depth < ${DEEPEST}
       ) select distinct id from spread order by id`,
    )
    .pluck()
    .all(message) as number[];
}

function textOf({ raw }: Store, message: number): string | null {
  return (
    (raw.prepare('select text from message where id = ?').pluck().get(message) as string | undefined) ?? null
  );
}

function shortly(text: string, most: number): string {
  const plain = text.replace(/\s+/g, ' ').trim();
  return plain.length <= most ? plain : `${plain.slice(0, most - 1).trimEnd()}…`;
}
