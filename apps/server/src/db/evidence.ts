import type { AccountWeave, EvidenceQuery, MessageKind, MessagePage, Portrait } from '@pebble/contract';
import { KIND_BIT } from '@pebble/core';
import { sql, type RawBuilder } from 'kysely';
import { readMessagesById } from './messages';
import type { Store } from './open';

/** What the evidence of a weave is taken from. */
interface Scope {
  readonly study: string;
  readonly weave: AccountWeave;
}

function wantedBits(weave: AccountWeave): number {
  return weave.kinds.reduce((bits, kind) => bits | KIND_BIT[kind], 0);
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

/** Messages from some accounts to others; or, where `both` is set, in either direction. */
export interface AddressedBetween {
  readonly from: readonly number[];
  readonly to: readonly number[];
  readonly both: boolean;
}

/** The messages behind a tie of one account to another, or all that an account wrote or that address it. */
export async function readEvidence(
  store: Store,
  { study, weave }: Scope,
  target: { accounts: readonly number[] } | AddressedBetween,
  { offset, limit }: Pick<EvidenceQuery, 'offset' | 'limit'>,
): Promise<MessagePage> {
  const bits = wantedBits(weave);
  const behind = 'from' in target ? betweenCondition(target, bits) : accountsCondition(target.accounts, bits);
  const rows = sql<{ id: number }>`
    select distinct a.message_id as id, a.time from address a
    where a.study_id = ${study} and ${inPeriod(weave)} and ${behind}`;
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

function betweenCondition({ from, to, both }: AddressedBetween, bits: number): RawBuilder<unknown> {
  const there = tieCondition(from, to, bits);
  return both ? sql`(${there} or ${tieCondition(to, from, bits)})` : there;
}

/** A self-tie of one account also stands for messages that address nobody in the wanted way. */
function tieCondition(from: readonly number[], to: readonly number[], bits: number): RawBuilder<unknown> {
  const addressed = sql`a.from_id in ${listOf(from)} and a.to_id in ${listOf(to)} and a.kinds & ${bits}`;
  if (from.length !== 1 || to.length !== 1 || from[0] !== to[0]) return addressed;
  return sql`(${addressed} or a.from_id = ${from[0]} and not exists (
    select 1 from address o where o.study_id = a.study_id and o.message_id = a.message_id and o.kinds & ${bits}))`;
}

function listOf(numbers: readonly number[]): RawBuilder<unknown> {
  return sql`(select value from json_each(${JSON.stringify(numbers)}))`;
}

function accountsCondition(accounts: readonly number[], bits: number): RawBuilder<unknown> {
  const list = listOf(accounts);
  return sql`(a.from_id in ${list} or (a.to_id in ${list} and a.kinds & ${bits}))`;
}

/** Which messages a portrait is drawn from: those that accounts wrote in a period, or those that are named. */
export type PortraitOf =
  | { readonly accounts: readonly number[]; readonly from: number | null; readonly until: number | null }
  | { readonly messages: readonly number[] };

/** The profile of the messages of a community of so many nodes. */
export async function readPortrait(
  { query }: Store,
  study: string,
  community: number,
  members: number,
  of: PortraitOf,
): Promise<Portrait> {
  const which =
    'accounts' in of
      ? sql`${inPeriod(of, sql.ref('m.time'))} and m.author_id in ${listOf(of.accounts)}`
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

/** The pairs of accounts that one message ties in this weave. */
export async function readMessageTies(
  store: Store,
  { study, weave }: Scope,
  message: number,
): Promise<{ source: number; target: number }[]> {
  const rows = await store.query
    .selectFrom('address')
    .select(['from_id', 'to_id', 'kinds'])
    .where('study_id', '=', study)
    .where('message_id', '=', message)
    .execute();
  const bits = wantedBits(weave);
  const ties = rows.filter((row) => row.kinds & bits);
  if (ties.length > 0) return ties.map((row) => ({ source: row.from_id, target: row.to_id }));
  return rows.slice(0, 1).map(({ from_id }) => ({ source: from_id, target: from_id }));
}
