import { createHmac, randomBytes } from 'node:crypto';
import { Naming } from '@pebble/contract';
import { givePseudonyms, type IdentityFinder, type Pseudonym } from '@pebble/core/files';
import { columnsOf } from './bulk';
import type { Store } from './open';

/** How people are called in what is published: as they are, where nobody decided. */
export async function readNaming({ query }: Store): Promise<Naming> {
  const row = await query.selectFrom('naming').select('body').executeTakeFirst();
  return Naming.parse(row ? JSON.parse(row.body) : { form: 'as they are' });
}

/** Keeps how people are called; the secret of which pseudonyms are made comes with the first time. */
export async function keepNaming({ query }: Store, naming: Naming): Promise<void> {
  const body = JSON.stringify(naming);
  const { numUpdatedRows } = await query.updateTable('naming').set({ body }).executeTakeFirst();
  if (numUpdatedRows > 0n) return;
  await query
    .insertInto('naming')
    .values({ secret: randomBytes(32).toString('base64'), body })
    .execute();
}

export async function countPseudonyms({ query }: Store): Promise<number> {
  const { known } = await query
    .selectFrom('pseudonym')
    .select(({ fn }) => fn.countAll<number>().as('known'))
    .executeTakeFirstOrThrow();
  return known;
}

/** Who has which pseudonym, by the key of the person. */
export function readPseudonyms(store: Store): Map<string, Pseudonym> {
  const sql = 'select person, number, words from pseudonym order by number';
  const [persons, numbers, words] = columnsOf(store, 3, sql, []) as [string[], number[], string[]];
  return new Map(persons.map((person, i) => [person, { number: numbers[i], words: words[i] }]));
}

/** Gives a pseudonym to those of these people who have none. Returns to how many. */
export function addPseudonyms(store: Store, people: Iterable<string>, known: IdentityFinder): number {
  const { raw } = store;
  const secret = raw.prepare('select secret from naming').pluck().get() as string;
  const given = readPseudonyms(store);
  const words = new Set(Array.from(given.values(), (one) => one.words));
  const newcomers = [...new Set(people)]
    .filter((key) => !given.has(key))
    .map((key) => ({ key, digest: (attempt: number) => digestOf(secret, key, attempt) }));
  const added = givePseudonyms(newcomers, {
    number: Array.from(given.values()).at(-1)?.number ?? 0,
    hasWords: (name) => words.has(name),
    isCalled: (name) => known.knows(name),
  });
  const insert = raw.prepare('insert into pseudonym (person, number, words) values (?, ?, ?)');
  for (const [key, one] of added) insert.run(key, one.number, one.words);
  return added.size;
}

/** Takes away who has which pseudonym, and the secret of which they were made. */
export async function erasePseudonyms({ query }: Store): Promise<void> {
  await query.deleteFrom('pseudonym').execute();
  await query.deleteFrom('naming').execute();
}

/** A message authentication code by HMAC (RFC 2104) with SHA-256. */
function digestOf(secret: string, person: string, attempt: number): Uint8Array {
  return createHmac('sha256', Buffer.from(secret, 'base64')).update(`${attempt} ${person}`).digest();
}
