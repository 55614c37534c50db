import type { Spread, SpreadHow, SpreadRequest } from '@pebble/contract';
import { categoryOrder, spreadCurve, spreadSentence, spreadTrees } from '@pebble/core';
import { BOUND_LIST } from '../storage/lists';
import type { Store } from '../storage/open';
import type { TidyAccounts } from '../weaving/tidied';
import { accountsIn, type AccountsInNetwork } from './accountGroups';
import { accountsNow } from './messagesOf';
import { messagesOfSpread } from './spreadMessages';

/** Steps that are told one by one, and trees; of further ones it is said how many there are. */
const MOST_STEPS = 20_000;
const MOST_TREES = 20;

/** An account when it had it first. */
interface FirstOf {
  readonly account: number;
  readonly message: number;
  readonly time: number;
  readonly kind: string;
  /** The account whose message this one is of, after tidying; below 0 where there is none. */
  readonly parent: number;
}

interface Source {
  /** Place of the account from which it was had. */
  readonly from: number;
  readonly how: SpreadHow;
}

/** How something went from account to account: told by the messages, by choice also by ties. */
export async function readSpread(
  store: Store,
  { of, network, column, byTies }: SpreadRequest,
): Promise<Spread> {
  const { name, messages } = await messagesOfSpread(store, of);
  const tidy = await accountsNow(store);
  const { firsts, times, undated } = firstsOf(store, messages, tidy);
  const place = new Map(firsts.map(({ account }, i) => [account, i]));
  const sources = firsts.map((one, i) => toldSource(one, i, place));
  mentionSources(store, firsts, place, sources, tidy);
  const told = sources.filter((one) => one !== null).length;
  if (byTies) tieSources(store, firsts, place, sources, tidy);
  const likely = sources.filter((one) => one !== null).length - told;
  const { trees, depth } = spreadTrees(sources.map((one) => one?.from ?? -1));
  const alone = trees.filter(({ size }) => size === 1).length;
  const inNetwork: AccountsInNetwork =
    network === null ? { nodeOf: new Map(), groupOf: new Map() } : await accountsIn(store, network, column);
  const labelOf = (account: number): string => tidy.labels.get(account) ?? '';
  const [first] = firsts;
  return {
    name,
    sentence: spreadSentence({
      name,
      messages: times.length,
      accounts: firsts.length,
      first: firsts.length > 0 ? { label: labelOf(first.account), time: first.time } : null,
      told,
      likely,
      largest: trees.at(0) ?? null,
      undated,
    }),
    messages: times.length,
    accounts: firsts.length,
    told,
    likely,
    undated,
    steps: firsts.slice(0, MOST_STEPS).map(({ account, message, time }, i) => ({
      message,
      label: labelOf(account),
      time,
      from: sources[i]?.from ?? null,
      how: sources[i]?.how ?? null,
      depth: depth[i],
      node: inNetwork.nodeOf.get(account) ?? null,
      group: inNetwork.groupOf.get(account) ?? null,
    })),
    trees: trees.filter(({ size }) => size > 1).slice(0, MOST_TREES),
    alone,
    furtherTrees: Math.max(0, trees.length - alone - MOST_TREES),
    curve: spreadCurve(
      times,
      firsts.map(({ time }) => time),
    ),
    entries: entriesInto(firsts, inNetwork),
    outside: network === null ? 0 : firsts.filter(({ account }) => !inNetwork.nodeOf.has(account)).length,
  };
}

/** The first message of each account in the order of time; undated messages say nothing of an order, those of accounts that were left out nothing. */
function firstsOf(
  { raw }: Store,
  messages: readonly number[],
  { now }: TidyAccounts,
): { firsts: FirstOf[]; times: number[]; undated: number } {
  const is = (account: number | null): number => (account === null ? -1 : now ? now(account) : account);
  const rows = raw
    .prepare(
      `select m.id, m.author_id, m.time, m.kind, coalesce(p.author_id, m.parent_author_id) from message m
        left join message p on p.key = m.parent_key where m.id in ${BOUND_LIST} order by m.time, m.id`,
    )
    .raw()
    .iterate(JSON.stringify(messages));
  const firsts: FirstOf[] = [];
  const seen = new Set<number>();
  const times: number[] = [];
  let undated = 0;
  for (const [message, author, time, kind, parent] of rows as Iterable<
    [number, number, number | null, string, number | null]
  >) {
    const account = is(author);
    if (account < 0) continue;
    if (time === null) {
      undated++;
      continue;
    }
    times.push(time);
    if (seen.has(account)) continue;
    seen.add(account);
    firsts.push({ account, message, time, kind, parent: is(parent) });
  }
  return { firsts, times, undated };
}

/** From whom an account had it by what its first message is: a repost, a quote or an answer of somebody who had it before. */
function toldSource(
  { kind, parent }: FirstOf,
  at: number,
  place: ReadonlyMap<number, number>,
): Source | null {
  const from = place.get(parent);
  if (from === undefined || from >= at) return null;
  return { from, how: kind === 'repost' || kind === 'quote' ? kind : 'reply' };
}

/** Where nothing else tells it: the last one to have it whom the first message mentions. */
function mentionSources(
  { raw }: Store,
  firsts: readonly FirstOf[],
  place: ReadonlyMap<number, number>,
  sources: (Source | null)[],
  { now }: TidyAccounts,
): void {
  const step = new Map(firsts.map(({ message }, i) => [message, i]));
  const rows = raw
    .prepare(`select message_id, to_id from address where message_id in ${BOUND_LIST}`)
    .raw()
    .iterate(JSON.stringify(firsts.map(({ message }) => message)));
  for (const [message, to] of rows as Iterable<[number, number]>) {
    const at = step.get(message)!;
    const from = place.get(now ? now(to) : to);
    const known = sources[at];
    if (from === undefined || from >= at || (known && known.how !== 'mention')) continue;
    if (!known || from > known.from) sources[at] = { from, how: 'mention' };
  }
}

/** Where messages do not tell it: the last one to have it before, whom the account addressed until then or follows (as in Goel et al. 2016). */
function tieSources(
  { raw }: Store,
  firsts: readonly FirstOf[],
  place: ReadonlyMap<number, number>,
  sources: (Source | null)[],
  { now }: TidyAccounts,
): void {
  const is = (account: number): number => (now ? now(account) : account);
  const take = (own: number, other: number, time: number | null): void => {
    const [at, from] = [place.get(is(own)), place.get(is(other))];
    if (at === undefined || from === undefined || from >= at) return;
    if (time !== null && time > firsts[at].time) return;
    const known = sources[at];
    if (known && known.how !== 'tie') return;
    if (!known || from > known.from) sources[at] = { from, how: 'tie' };
  };
  const addresses = raw
    .prepare('select from_id, to_id, time from address where time is not null')
    .raw()
    .iterate();
  for (const [own, other, time] of addresses as Iterable<[number, number, number]>) take(own, other, time);
  const follows = raw.prepare('select follower_id, followed_id from follow').raw().iterate();
  for (const [own, other] of follows as Iterable<[number, number]>) take(own, other, null);
}

/** Through which account it came into each group first, and how many of the group had it. */
function entriesInto(firsts: readonly FirstOf[], { groupOf }: AccountsInNetwork): Spread['entries'] {
  const sizes = new Map<string, number>();
  for (const group of groupOf.values()) sizes.set(group, (sizes.get(group) ?? 0) + 1);
  const places = new Map(categoryOrder(sizes).map((group, place) => [group, place]));
  const entries = new Map<string, Spread['entries'][number]>();
  firsts.forEach(({ account }, step) => {
    const group = groupOf.get(account);
    // Nodes that were found in no group with others are no group.
    if (group === undefined || group === '' || sizes.get(group)! < 2) return;
    const known = entries.get(group);
    if (known) known.accounts++;
    else
      entries.set(group, { group, step, accounts: 1, nodes: sizes.get(group)!, place: places.get(group)! });
  });
  return [...entries.values()];
}
