import type { ThreadOccurrences } from '@pebble/core';
import { columnsOf } from './bulk';
import type { Store } from './open';

/** Which messages a weave goes by. */
export interface OccurrenceScope {
  readonly from: number | null;
  readonly until: number | null;
  readonly reposts: boolean;
}

/** Where things stand in messages, and what they are called. */
export interface NamedOccurrences {
  readonly occurrences: ThreadOccurrences;
  readonly labelOf: (thing: number) => string;
  /** How a thing is compared with what a researcher types to leave it out. */
  readonly keyOf: (thing: number) => string;
  /** The key of a name that a researcher typed. */
  readonly typedKey: (typed: string) => string;
}

type Row = readonly (string | number | null)[];

/** Columns that grow row by row. */
export class Rows {
  private readonly messages: number[] = [];
  private readonly authors: number[] = [];
  private readonly things: number[] = [];
  private readonly times: number[] = [];
  private readonly places: number[] = [];

  /** @param at the word of the message at which the thing stands, where that is asked for */
  add(message: number, author: number, thing: number, time: number | null, at?: number): void {
    this.messages.push(message);
    this.authors.push(author);
    this.things.push(thing);
    this.times.push(time ?? NaN);
    if (at !== undefined) this.places.push(at);
  }

  get occurrences(): ThreadOccurrences {
    const { messages: message, authors: author, things: thing, times: time, places: at } = this;
    return { count: message.length, message, author, thing, time, ...(at.length > 0 ? { at } : {}) };
  }
}

/** Numbers for names, in the order in which they come. */
export class Names {
  readonly labels: string[] = [];
  private readonly number = new Map<string, number>();

  of(key: string, label = key): number {
    let n = this.number.get(key);
    if (n === undefined) {
      n = this.labels.push(label) - 1;
      this.number.set(key, n);
    }
    return n;
  }
}

/** Where things stand that are called by what they are. */
export function namedBy(rows: Rows, { labels }: Names): NamedOccurrences {
  const same = (text: string): string => text;
  return {
    occurrences: rows.occurrences,
    labelOf: (thing) => labels[thing],
    keyOf: (thing) => labels[thing],
    typedKey: same,
  };
}

/** The display names of accounts, where they are known. */
export function accountNames(store: Store): Map<number, string> {
  return labels(store, 'select id, name from account where name is not null');
}

export function accountLabels(store: Store): Map<number, string> {
  return labels(store, 'select id, handle from account');
}

/** @param sql gives numbers with what they are called */
export function labels(store: Store, sql: string): Map<number, string> {
  const [ids, names] = columnsOf(store, 2, sql, []) as [number[], string[]];
  return new Map(ids.map((id, i) => [id, names[i]]));
}

export function condition({ from, until, reposts }: OccurrenceScope): string {
  return [
    ...(from === null ? [] : ['m.time >= ?']),
    ...(until === null ? [] : ['m.time < ?']),
    ...(reposts ? [] : ["m.kind <> 'repost'"]),
    'true',
  ].join(' and ');
}

export function* iterate(
  { raw }: Store,
  sql: string,
  { from, until }: OccurrenceScope,
): Generator<[message: number, author: number, thing: number, time: number | null]> {
  const values = [from, until].filter((value) => value !== null);
  yield* raw
    .prepare(sql)
    .raw()
    .iterate(...values) as Iterable<[number, number, number, number | null]>;
}

export interface TextRow {
  readonly message: number;
  readonly author: number;
  readonly time: number | null;
  readonly text: string;
  readonly language: string | null;
}

export function* texts({ raw }: Store, scope: OccurrenceScope): Generator<TextRow> {
  const values = [scope.from, scope.until].filter((value) => value !== null);
  const sql = `select m.id, m.author_id, m.time, m.text, l.language from message m
    left join message_language l on l.message_id = m.id where ${condition(scope)} order by m.id`;
  for (const row of raw
    .prepare(sql)
    .raw()
    .iterate(...values) as Iterable<Row>) {
    const [message, author, time, text, language] = row as [
      number,
      number,
      number | null,
      string,
      string | null,
    ];
    yield { message, author, time, text, language };
  }
}
