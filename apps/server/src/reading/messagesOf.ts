import type { MessageKind, MessagePage } from '@pebble/contract';
import type { MessageGroups } from '@pebble/core';
import { isAmong } from '../storage/lists';
import { readDecisions } from '../storage/decisions';
import { readMessagesById } from '../storage/messages';
import type { Store } from '../storage/open';
import { tidyAccounts, type TidyAccounts } from '../weaving/tidied';

/** What accounts are by what holds of them now. */
export async function accountsNow(store: Store): Promise<TidyAccounts> {
  return tidyAccounts(store, await readDecisions(store, ['account']));
}

interface MessageFact {
  readonly message: number;
  /** Who wrote it, after tidying; below 0 for an account that was left out. */
  readonly author: number;
  readonly kind: MessageKind;
  /** Milliseconds since 1970; NaN where undated. */
  readonly time: number;
}

/** What is known of the messages of groups beside their texts, in the order of messages. */
export function* messagesIn(
  { raw }: Store,
  groups: MessageGroups,
  { now }: TidyAccounts,
): Generator<MessageFact> {
  const rows = raw.prepare('select id, author_id, kind, time from message order by id').raw().iterate();
  for (const [message, account, kind, time] of rows as Iterable<[number, number, MessageKind, number | null]>)
    if (groups.has(message)) yield { message, author: now ? now(account) : account, kind, time: time ?? NaN };
}

/** Messages that answer one that was collected too, with that. */
export function answersTo(raw: Store['raw']): Iterable<readonly [message: number, parent: number]> {
  return raw
    .prepare(
      `select m.id, p.id from message m join message p on p.key = m.parent_key
        where m.kind in ('reply', 'comment', 'email') order by m.id`,
    )
    .raw()
    .iterate() as Iterable<[number, number]>;
}

const DAY = 86_400_000;

/** Which of some messages are wanted, and how many from one on. */
interface Wanted {
  readonly kind?: MessageKind;
  /** UTC, milliseconds since 1970. */
  readonly day?: number;
  /** By these accounts alone. */
  readonly authors?: readonly number[] | null;
  readonly offset: number;
  readonly limit: number;
}

/** A page of messages in the order of time, undated ones last. */
export async function pageOf(
  store: Store,
  messages: readonly number[],
  { kind, day, authors = null, offset, limit }: Wanted,
): Promise<MessagePage> {
  const rows = await store.query
    .selectFrom('message')
    .select('id')
    .where(isAmong('id', messages))
    .$if(authors !== null, (asked) => asked.where(isAmong('author_id', authors!)))
    .$if(kind !== undefined, (asked) => asked.where('kind', '=', kind!))
    .$if(day !== undefined, (asked) => asked.where('time', '>=', day!).where('time', '<', day! + DAY))
    .orderBy((e) => e('time', 'is', null))
    .orderBy('time')
    .orderBy('id')
    .execute();
  const page = rows.slice(offset, offset + limit).map((row) => row.id);
  return { total: rows.length, offset, messages: await readMessagesById(store, page) };
}
