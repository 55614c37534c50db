import type { AccountWeave, EvidenceQuery, MessageKind, Portrait } from '@pebble/contract';
import type { AddressRows } from '@pebble/core';
import { sql, type RawBuilder } from 'kysely';
import { listOf } from './lists';
import type { Store } from './open';
import { takenCondition } from './taken';

/** What the evidence of a weave is taken from. */
interface Scope {
  readonly weave: AccountWeave;
}

/** The condition for messages that the weave takes, by a column that names them. */
function isTaken(store: Store, { weave }: Scope, message: RawBuilder<unknown>): RawBuilder<unknown> {
  const taken = takenCondition(store, weave);
  return taken ? sql`${message} in (select m.id from message m where ${taken})` : sql`1`;
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

/** Which messages are wanted: those from the first account of some pair to its second, all that some accounts write, or are addressed by. */
export interface Candidates {
  readonly pairs?: readonly (readonly [from: number, to: number])[];
  readonly authors?: readonly number[];
  readonly addressed?: readonly number[];
}

/** A time: from a moment on, before another. */
export type Period = Pick<AccountWeave, 'from' | 'until'>;

/**
 * All rows of those messages of a weave that may have something to do with some accounts, in the order of messages. What they tie is said
 * by the rule of the weave alone.
 */
export function readAddressRows(
  store: Store,
  scope: Scope,
  { pairs = [], authors = [], addressed = [] }: Candidates,
  within: Period = { from: null, until: null },
): AddressRows {
  // An account's own messages are found by their author; those that address it by the index of the table.
  const writtenBy = (accounts: readonly number[]): RawBuilder<unknown> =>
    sql`select m.id from message m where m.author_id in ${listOf(accounts)} and ${inPeriod(within, sql.ref('m.time'))}`;
  const ends = (end: 0 | 1): number[] => [...new Set(pairs.map((pair) => pair[end]))];
  const candidates = [
    ...(pairs.length > 0
      ? [
          sql`select a.message_id from address a where a.message_id in (${writtenBy(ends(0))})
            and +a.to_id in ${listOf(ends(1))}`,
        ]
      : []),
    ...(authors.length > 0 ? [writtenBy(authors)] : []),
    ...(addressed.length > 0
      ? [
          sql`select a.message_id from address a where a.to_id in ${listOf(addressed)} and ${inPeriod(within)}`,
        ]
      : []),
  ];
  if (candidates.length === 0) return addressRows([]);
  return read(store, scope, sql`message_id in (${sql.join(candidates, sql` union `)})`);
}

/** All rows of one message, where the weave takes it. */
export function readMessageRows(store: Store, scope: Scope, message: number): AddressRows {
  return read(store, scope, sql`message_id = ${message}`);
}

/** The messages that a weave takes, with who wrote them. */
export function* writtenMessages(
  store: Store,
  { weave }: Scope,
): Generator<{ readonly message: number; readonly author: number }> {
  const taken = takenCondition(store, weave) ?? sql`1`;
  const { sql: text, parameters } =
    sql`select m.id, m.author_id from message m where ${inPeriod(weave, sql.ref('m.time'))} and ${taken}`.compile(
      store.query,
    );
  const rows = store.raw
    .prepare(text)
    .raw()
    .iterate(...(parameters as (string | number)[])) as Iterable<[number, number]>;
  for (const [message, author] of rows) yield { message, author };
}

/** Rows of the messages that the weave takes, in the order of messages. */
function read(store: Store, scope: Scope, which: RawBuilder<unknown>): AddressRows {
  const taken = isTaken(store, scope, sql.ref('message_id'));
  const { sql: text, parameters } = sql`select message_id, from_id, to_id, kinds, time from address
    where ${which} and ${taken} order by message_id`.compile(store.query);
  const statement = store.raw.prepare(text).raw();
  return addressRows(statement.all(...(parameters as (string | number)[])) as AddressRow[]);
}

type AddressRow = readonly [message: number, from: number, to: number, kinds: number, time: number | null];

function addressRows(rows: readonly AddressRow[]): AddressRows {
  const column = (i: 0 | 1 | 2 | 3): number[] => rows.map((row) => row[i]);
  return {
    count: rows.length,
    message: column(0),
    from: column(1),
    to: column(2),
    kinds: column(3),
    time: rows.map((row) => row[4] ?? NaN),
  };
}

/** Which of the messages are wanted: of what time, and so many from one on. */
export type EvidencePage = Pick<EvidenceQuery, 'offset' | 'limit'> & Partial<Period>;

/** The profile of the messages of a community of so many nodes. */
export async function readPortrait(
  store: Store,
  community: number,
  members: number,
  messages: readonly number[],
): Promise<Portrait> {
  const { query } = store;
  const which = sql`m.id in ${listOf(messages)}`;
  const own = sql`from message m where ${which}`;
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
