import {
  MessageKind,
  PortraitThing,
  type Comparison,
  type ComparisonRequest,
  type MessagePage,
  type SetMessagesRequest,
} from '@pebble/contract';
import { activityOf, comparisonSentence, MessageGroups, typicalThings, type GroupThings } from '@pebble/core';
import { lastMessage } from '../storage/messages';
import type { Store } from '../storage/open';
import { readSet } from './messageSets';
import { accountsNow, messagesIn, pageOf } from './messagesOf';
import { readPortraitThings } from './portraitThings';
import { messagesWith } from './readPortraits';

/** Terms and accounts of each list. */
const MOST = 40;

/** Two sets of messages beside each other. */
export async function readComparison(
  store: Store,
  { a, b, leastAuthors }: ComparisonRequest,
): Promise<Comparison> {
  const groups = new MessageGroups(2, lastMessage(store));
  for (const message of await readSet(store, a)) groups.add(message, 0);
  for (const message of await readSet(store, b)) groups.add(message, 1);
  const things = {} as Record<PortraitThing, Comparison['things'][PortraitThing]>;
  for (const thing of PortraitThing.options) {
    const { occurrences, labelOf } = await readPortraitThings(store, thing);
    const [first, second] = typicalThings(occurrences, groups, labelOf, { leastAuthors, most: MOST });
    things[thing] = { a: first.typical, b: second.typical, both: inBoth(first, second) };
  }
  const { accounts, kinds, times, authors } = await writersOf(store, groups);
  const [own, other] = activityOf(groups, times);
  const [messagesA, messagesB] = groups.sizes;
  const sides = {
    a: { messages: messagesA, authors: authors.a, first: own.first, last: own.last },
    b: { messages: messagesB, authors: authors.b, first: other.first, last: other.last },
    both: { messages: messagesA + messagesB - groups.all, authors: authors.both },
  };
  return {
    ...sides,
    things,
    accounts,
    kinds,
    days: own.days.map(({ day, messages }, i) => ({ day, a: messages, b: other.days[i].messages })),
    sentence: comparisonSentence(sides, things),
  };
}

/** What stands in messages of both, the most used first; of what is used seldom in one of them nothing is told. */
function inBoth(a: GroupThings, b: GroupThings): { label: string; a: number; b: number }[] {
  const other = new Map(b.used.map(({ label, messages }) => [label, messages]));
  return a.used.flatMap(({ label, messages }) => {
    const there = other.get(label);
    return there === undefined ? [] : [{ label, a: messages, b: there }];
  });
}

/** Who wrote the messages of two sets, of which kinds and when; accounts are what they are after tidying. */
async function writersOf(store: Store, groups: MessageGroups) {
  const tidy = await accountsNow(store);
  const counts = new Map<number, [a: number, b: number]>();
  const kinds = new Map<MessageKind, [a: number, b: number]>();
  const times: [number, number][] = [];
  const count = <K>(all: Map<K, [number, number]>, key: K, group: number): void => {
    let own = all.get(key);
    if (!own) all.set(key, (own = [0, 0]));
    own[group]++;
  };
  for (const { message, author, kind, time } of messagesIn(store, groups, tidy)) {
    times.push([message, time]);
    for (const g of groups.of(message)) {
      if (author >= 0) count(counts, author, g);
      count(kinds, kind, g);
    }
  }
  const all = [...counts].map(([account, [a, b]]) => ({ label: tidy.labels.get(account) ?? '', a, b }));
  const first = (which: (one: { a: number; b: number }) => boolean) =>
    all
      .filter(which)
      .sort((x, y) => y.a + y.b - (x.a + x.b) || (x.label < y.label ? -1 : 1))
      .slice(0, MOST);
  return {
    accounts: {
      a: first(({ b }) => b === 0),
      b: first(({ a }) => a === 0),
      both: first(({ a, b }) => a > 0 && b > 0),
    },
    authors: {
      a: all.filter(({ a }) => a > 0).length,
      b: all.filter(({ b }) => b > 0).length,
      both: all.filter(({ a, b }) => a > 0 && b > 0).length,
    },
    kinds: MessageKind.options.flatMap((kind) => {
      const found = kinds.get(kind);
      return found ? { kind, a: found[0], b: found[1] } : [];
    }),
    times,
  };
}

/** Messages of a set that a number of a comparison counts, in the order of time. */
export async function readSetMessages(
  store: Store,
  { set, without, thing, label, author, kind, day, offset, limit }: SetMessagesRequest,
): Promise<MessagePage> {
  const left = new Set(without ? await readSet(store, without) : []);
  const standing =
    thing !== undefined && label !== undefined ? new Set(await messagesWith(store, thing, label)) : null;
  const all = (await readSet(store, set)).filter(
    (message) => !left.has(message) && (standing?.has(message) ?? true),
  );
  const authors = author === undefined ? null : await accountsOf(store, author);
  return pageOf(store, all, { kind, day, authors, offset, limit });
}

/** All accounts that are one by a name after tidying. */
async function accountsOf(store: Store, handle: string): Promise<number[]> {
  const tidy = await accountsNow(store);
  return [...tidy.labels]
    .filter(([account, label]) => {
      const now = tidy.now ? tidy.now(account) : account;
      return now >= 0 && (tidy.labels.get(now) ?? label) === handle;
    })
    .map(([account]) => account);
}
