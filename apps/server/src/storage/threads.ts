import type { Thread } from '@pebble/contract';
import { sql, type Selectable } from 'kysely';
import { readMessagesById } from './messages';
import type { Store } from './open';
import type { MessageTable } from './schema';

/** Messages of a thread that are given at most; the thread says how many there are. */
const MOST_SHOWN = 500;
/** Messages between the first one of a thread and one of its answers at most. */
const DEEPEST = 1000;

/**
 * The conversation that a message stands in: from the first message that was collected, every answer, each under the message that it
 * answers and in the order of time. Null when there is no such message in the study.
 */
export async function readThread(store: Store, message: number): Promise<Thread | null> {
  const top = await topOf(store, message);
  if (!top) return null;
  const { rows } = await sql<ThreadRow>`
    with recursive answer(id, key, parent, time, depth) as (
      select id, key, 0, time, 0 from message where id = ${top.id}
      union
      select m.id, m.key, a.id, m.time, a.depth + 1 from answer a
        join message m on m.parent_key = a.key
        where a.depth < ${DEEPEST} and m.id <> ${top.id} and m.kind <> 'repost'
    ) select id, parent, time, min(depth) as depth from answer group by id`.execute(store.query);
  const ordered = inReadingOrder(rows, top.id);
  const shown = ordered.slice(0, MOST_SHOWN);
  const messages = await readMessagesById(
    store,
    shown.map(({ id }) => id),
  );
  return {
    total: rows.length,
    messages: messages.map((one, i) => ({ depth: shown[i].depth, message: one })),
    beginsBefore: top.beginsBefore,
    circular: top.circular,
  };
}

interface ThreadRow {
  readonly id: number;
  /** 0 for the first one. */
  readonly parent: number;
  readonly time: number | null;
  readonly depth: number;
}

interface Top {
  readonly id: number;
  readonly beginsBefore: boolean;
  readonly circular: boolean;
}

/** The first message of the thread: the one from which no further parent was collected. */
async function topOf(store: Store, message: number): Promise<Top | null> {
  const asked = await findLink(store, 'id', message);
  if (!asked) return null;
  let current: Link = asked;
  const seen = new Set<number>([current.id]);
  for (;;) {
    const key: string | null = current.parent_key;
    const parent: Link | undefined =
      key === null || seen.size > DEEPEST ? undefined : await findLink(store, 'key', key);
    if (!parent) return { id: current.id, beginsBefore: key !== null, circular: false };
    if (seen.has(parent.id)) return { id: Math.min(...seen), beginsBefore: false, circular: true };
    seen.add(parent.id);
    current = parent;
  }
}

type Link = Pick<Selectable<MessageTable>, 'id' | 'parent_key'>;

function findLink({ query }: Store, column: 'id' | 'key', value: number | string): Promise<Link | undefined> {
  return query
    .selectFrom('message')
    .select(['id', 'parent_key'])
    .where(column, '=', value)
    .executeTakeFirst();
}

/** Each message after the one that it answers, answers of one message by time; undated ones come last. */
function inReadingOrder(rows: readonly ThreadRow[], top: number): ThreadRow[] {
  const answers = new Map<number, ThreadRow[]>();
  for (const row of rows) {
    const siblings = answers.get(row.parent);
    if (siblings) siblings.push(row);
    else answers.set(row.parent, [row]);
  }
  const ordered: ThreadRow[] = [];
  const waiting = rows.filter(({ id }) => id === top);
  for (let row = waiting.pop(); row; row = waiting.pop()) {
    ordered.push(row);
    const next = (answers.get(row.id) ?? []).sort(
      (a, b) => (b.time ?? Infinity) - (a.time ?? Infinity) || b.id - a.id,
    );
    waiting.push(...next);
  }
  return ordered;
}
