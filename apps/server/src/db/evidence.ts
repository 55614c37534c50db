import type { AccountWeave, EvidenceQuery, MessageKind, MessagePage, Portrait } from '@pebble/contract';
import { KIND_BIT } from '@pebble/core';
import { sql, type RawBuilder } from 'kysely';
import { listOf, rowsOf } from './lists';
import { readMessagesById } from './messages';
import type { Store } from './open';
import { takenCondition } from './taken';

/** What the evidence of a weave is taken from. */
interface Scope {
  readonly study: string;
  readonly weave: AccountWeave;
}

/** The condition for rows "a" (or another alias) that address an account in a way that the weave wants. */
function isAddressed(weave: AccountWeave, alias = 'a'): RawBuilder<unknown> {
  const bits = weave.kinds.reduce((all, kind) => all | KIND_BIT[kind], 0);
  const kinds = sql.ref(`${alias}.kinds`);
  if (weave.repostMentions || !(bits & KIND_BIT.mention)) return sql`${kinds} & ${bits}`;
  // Mentions in reposted texts do not count.
  const others = bits & ~KIND_BIT.mention;
  return sql`(${kinds} & ${others} or (${kinds} & ${KIND_BIT.mention} and not exists (
    select 1 from address r where r.study_id = ${sql.ref(`${alias}.study_id`)}
      and r.message_id = ${sql.ref(`${alias}.message_id`)} and r.kinds & ${KIND_BIT.repost})))`;
}

/** The condition for messages that the weave takes, by a column that names them. */
function isTaken(store: Store, { study, weave }: Scope, message: RawBuilder<unknown>): RawBuilder<unknown> {
  const taken = takenCondition(store, study, weave);
  return taken
    ? sql`${message} in (select m.id from message m where m.study_id = ${study} and ${taken})`
    : sql`1`;
}

function inPeriod(
  { from, until }: Pick<AccountWeave, 'from' | 'until'>,
  time = sql.ref('a.time'),
): RawBuilder<unknown> {
  const parts: RawBuilder<unknown>[] = [sql`1`];
  if (from !== null) parts.push(sql`${time} >= ${from}`);
  if (until !== null) parts.push(sql`${time} < ${until}`);
  return sql.join(parts, sql` and `);
}

/** Messages from the first account of some pair to its second; or, where `both` is set, in either direction. */
export interface AddressedBetween {
  readonly pairs: readonly (readonly [from: number, to: number])[];
  readonly both: boolean;
}

/** Which of the messages are wanted: of what time, and so many from one on. */
export type EvidencePage = Pick<EvidenceQuery, 'offset' | 'limit'> & {
  readonly from?: number | null;
  readonly until?: number | null;
};

/** The messages behind a tie of one account to another, or all that an account wrote or that address it. */
export async function readEvidence(
  store: Store,
  { study, weave }: Scope,
  target: { accounts: readonly number[] } | AddressedBetween,
  { offset, limit, from = null, until = null }: EvidencePage,
): Promise<MessagePage> {
  const behind =
    'pairs' in target ? betweenCondition(target, weave) : accountsCondition(target.accounts, weave);
  const rows = sql<{ id: number }>`
    select distinct a.message_id as id, a.time from address a
    where a.study_id = ${study} and ${inPeriod(weave)} and ${inPeriod({ from, until })}
      and ${isTaken(store, { study, weave }, sql.ref('a.message_id'))} and ${behind}`;
  const { count } = (
    await sql<{ count: number }>`select count(*) as count from (${rows})`.execute(store.query)
  ).rows[0];
  const page = await sql<{
    id: number;
  }>`${rows} order by a.time is null, a.time, a.message_id limit ${limit} offset ${offset}`.execute(
    store.query,
  );
  return {
    total: count,
    offset,
    messages: await readMessagesById(
      store,
      page.rows.map((row) => row.id),
    ),
  };
}

/** A self-tie of an account also stands for messages that address nobody in the wanted way. */
function betweenCondition({ pairs, both }: AddressedBetween, weave: AccountWeave): RawBuilder<unknown> {
  const wanted = both ? [...pairs, ...pairs.map(([from, to]) => [to, from])] : pairs;
  const from = listOf([...new Set(wanted.map(([account]) => account))]);
  const addressed = sql`a.from_id in ${from} and (a.from_id, a.to_id) in (
    select value ->> 0, value ->> 1 from ${rowsOf(wanted)}) and ${isAddressed(weave)}`;
  const selves = pairs.filter(([a, b]) => a === b).map(([account]) => account);
  if (selves.length === 0) return addressed;
  return sql`(${addressed} or a.from_id in ${listOf(selves)} and not exists (
    select 1 from address o where o.study_id = a.study_id and o.message_id = a.message_id and ${isAddressed(weave, 'o')}))`;
}

function accountsCondition(accounts: readonly number[], weave: AccountWeave): RawBuilder<unknown> {
  const list = listOf(accounts);
  return sql`(a.from_id in ${list} or (a.to_id in ${list} and ${isAddressed(weave)}))`;
}

/** Which messages a portrait is drawn from: those that accounts wrote in a period, or those that are named. */
export type PortraitOf =
  | { readonly accounts: readonly number[]; readonly weave: AccountWeave }
  | { readonly messages: readonly number[] };

/** The profile of the messages of a community of so many nodes. */
export async function readPortrait(
  store: Store,
  study: string,
  community: number,
  members: number,
  of: PortraitOf,
): Promise<Portrait> {
  const { query } = store;
  const which =
    'accounts' in of
      ? sql`${inPeriod(of.weave, sql.ref('m.time'))} and ${takenCondition(store, study, of.weave) ?? sql`1`} and m.author_id in ${listOf(of.accounts)}`
      : sql`m.id in ${listOf(of.messages)}`;
  const own = sql`from message m where m.study_id = ${study} and ${which}`;
  const [whole] = (
    await sql<{ messages: number; first: number | null; last: number | null }>`
    select count(*) as messages, min(m.time) as first, max(m.time) as last ${own}`.execute(query)
  ).rows;
  const hashtags = await sql<{ tag: string; messages: number }>`
    select h.tag, count(*) as messages from message_hashtag mh join hashtag h on h.id = mh.hashtag_id
    where mh.message_id in (select m.id ${own}) group by h.id order by messages desc, h.tag limit 12`.execute(
    query,
  );
  const kinds = await sql<{ kind: MessageKind; messages: number }>`
    select m.kind, count(*) as messages ${own} group by m.kind order by messages desc`.execute(query);
  return {
    community,
    accounts: members,
    messages: whole.messages,
    hashtags: hashtags.rows,
    kinds: kinds.rows,
    from: whole.first,
    until: whole.last,
  };
}

/** A message that an account writes to another, and when. */
export interface AddressTime {
  readonly message: number;
  readonly from: number;
  readonly to: number;
  readonly time: number | null;
}

/** All messages that tie accounts in a weave, ordered by message; one that addresses nobody ties its author to itself. */
export async function readAddressTimes(store: Store, { study, weave }: Scope): Promise<AddressTime[]> {
  const scope = { study, weave };
  const { rows } = await sql<AddressTime & { addressed: number }>`
    select a.message_id as message, a.from_id as "from", a.to_id as "to", a.time, ${isAddressed(weave)} as addressed
    from address a
    where a.study_id = ${study} and ${inPeriod(weave)} and ${isTaken(store, scope, sql.ref('a.message_id'))}
    order by a.message_id`.execute(store.query);
  const addressing = new Set(rows.filter(({ addressed }) => addressed).map(({ message }) => message));
  return rows
    .filter(({ addressed, message }) => addressed || !addressing.has(message))
    .map(({ message, from, to, time, addressed }) => ({ message, from, to: addressed ? to : from, time }));
}

/** The pairs of accounts that one message ties in this weave. */
export async function readMessageTies(
  store: Store,
  { study, weave }: Scope,
  message: number,
): Promise<{ source: number; target: number }[]> {
  const scope = { study, weave };
  const { rows } = await sql<{ from: number; to: number; addressed: number }>`
    select a.from_id as "from", a.to_id as "to", ${isAddressed(weave)} as addressed from address a
    where a.study_id = ${study} and a.message_id = ${message} and ${inPeriod(weave)}
      and ${isTaken(store, scope, sql.ref('a.message_id'))}`.execute(store.query);
  const ties = rows.filter(({ addressed }) => addressed);
  if (ties.length > 0) return ties.map(({ from, to }) => ({ source: from, target: to }));
  return rows.slice(0, 1).map(({ from }) => ({ source: from, target: from }));
}
