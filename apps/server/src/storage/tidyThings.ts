import type { TidyKind, TidySort } from '@pebble/contract';
import { handleKey, type ThreadOccurrences } from '@pebble/core';
import { readAddresses } from './addresses';
import type { Store } from './open';
import type { OccurrenceScope } from './occurrenceRows';
import { readOccurrences } from './occurrences';

/** The things of one sort in a study: where they stand, their keys and labels, and what is known of them. */
export interface SortedThings {
  readonly occurrences: ThreadOccurrences;
  readonly keys: readonly string[];
  readonly labels: readonly string[];
  /** Their numbers in the study; of two spellings of one key that of the first. */
  readonly ids: readonly number[];
  /** Names of the persons behind accounts. */
  readonly personalNames: readonly (string | null)[];
  /** Kinds that the finder of names told, by key. */
  readonly kinds: ReadonlyMap<string, TidyKind>;
}

/** Every thing of a sort; accounts that wrote or are addressed. */
export function readThings(store: Store, sort: TidySort): SortedThings {
  if (sort === 'account') return readAccountsAsThings(store);
  const scope: OccurrenceScope = { from: null, until: null, reposts: true };
  const { occurrences, labelOf, keyOf } = readOccurrences(store, scope, sort);
  const found = numbered(occurrences, keyOf, labelOf, () => null);
  return sort === 'name' ? { ...found, kinds: kindsOfNames(store) } : found;
}

/** What the finder of names told of each, by its key. */
export function kindsOfNames({ raw }: Store): Map<string, TidyKind> {
  const rows = raw.prepare('select name_key, kind from name').raw().all();
  return new Map(rows as [string, TidyKind][]);
}

function readAccountsAsThings(store: Store): SortedThings {
  const rows = readAddresses(store);
  // A message counts for its author and for everyone it addresses; a row of the author itself stands for each message.
  const message: number[] = [];
  const author: number[] = [];
  const thing: number[] = [];
  const time: number[] = [];
  for (let i = 0; i < rows.count; i++) {
    const ends = rows.kinds[i] === 0 ? [rows.from[i]] : [rows.from[i], rows.to[i]];
    for (const account of ends) {
      message.push(rows.message[i]);
      author.push(rows.from[i]);
      thing.push(account);
      time.push(rows.time[i]);
    }
  }
  const accounts = new Map(
    (
      store.raw.prepare('select id, handle, name from account').raw().all() as [
        number,
        string,
        string | null,
      ][]
    ).map(([id, handle, name]) => [id, { handle, name }]),
  );
  return numbered(
    { count: message.length, message, author, thing, time },
    (account) => handleKey(accounts.get(account)?.handle ?? ''),
    (account) => accounts.get(account)?.handle ?? '',
    (account) => accounts.get(account)?.name ?? null,
  );
}

/** Things numbered by key, in the order in which they come; two spellings of one key are one thing, called by the first. */
function numbered(
  occurrences: ThreadOccurrences,
  keyOf: (thing: number) => string,
  labelOf: (thing: number) => string,
  nameOf: (thing: number) => string | null,
): SortedThings {
  const number = new Map<string, number>();
  const known = new Map<number, number>();
  const keys: string[] = [];
  const labels: string[] = [];
  const ids: number[] = [];
  const personalNames: (string | null)[] = [];
  const thing = Uint32Array.from(occurrences.thing, (one) => {
    let at = known.get(one);
    if (at !== undefined) return at;
    const key = keyOf(one);
    at = number.get(key);
    if (at === undefined) {
      at = keys.push(key) - 1;
      number.set(key, at);
      labels.push(labelOf(one));
      ids.push(one);
      personalNames.push(nameOf(one));
    }
    known.set(one, at);
    return at;
  });
  return { occurrences: { ...occurrences, thing }, keys, labels, ids, personalNames, kinds: new Map() };
}
