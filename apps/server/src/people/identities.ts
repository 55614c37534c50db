import type { Leak, LeakKind, Leaks } from '@pebble/contract';
import { handleKey } from '@pebble/core';
import { IdentityFinder, type Identity } from '@pebble/core/files';
import { columnsOf } from '../storage/bulk';
import { readDecisions } from '../storage/decisions';
import type { Store } from '../storage/open';
import { readNaming } from '../storage/people';
import { keepersOf } from './keepers';
import { everyPerson } from './persons';

/**
 * Finds the people of a study who have pseudonyms: by handles, names, addresses of mail, and by numbers and links of their messages. Null
 * where everybody is called as they are.
 */
export async function hiddenPeople(store: Store): Promise<IdentityFinder | null> {
  const naming = await readNaming(store);
  if (naming.form === 'as they are') return null;
  const isKept = await keepersOf(store, naming);
  const hidden = [...(await called(store)), ...written(store)].filter(({ person }) => !isKept(person));
  return new IdentityFinder(hidden);
}

/** Finds everybody of a study by what they are called, those who keep their names too. */
export async function everyName(store: Store): Promise<IdentityFinder> {
  return new IdentityFinder(await called(store));
}

/** Something that a person can be found by, and the key of the person. */
interface Belonging extends Identity {
  readonly person: string;
}

/** Handles, names, and the labels that accounts were given. */
async function called(store: Store): Promise<Belonging[]> {
  const found = new Found();
  for (const table of ['account', 'parked_account']) {
    const sql = `select handle_key, handle, name from ${table}`;
    const [persons, handles, names] = columnsOf(store, 3, sql, []) as [string[], string[], string[]];
    persons.forEach((person, i) => {
      found.add(person, 'handle', handles[i]);
      found.add(person, 'name', names[i]);
    });
  }
  for (const person of await everyPerson(store)) found.add(person, 'handle', person);
  for (const { key, verdict } of await readDecisions(store, ['account']))
    if (verdict.verdict === 'rename') found.add(key, 'name', verdict.label);
  return found.all;
}

/** Numbers and links of messages, those of sources that were taken out included. */
function written(store: Store): Belonging[] {
  const found = new Found();
  for (const beside of ['', 'parked_']) {
    const sql = `select coalesce(a.handle_key, b.handle_key, ''), m.key, m.link from ${beside}message m
      left join account a on a.id = m.author_id left join parked_account b on b.id = m.author_id`;
    const [persons, keys, links] = columnsOf(store, 3, sql, []) as [string[], string[], string[]];
    persons.forEach((person, i) => {
      found.add(person, 'message', keys[i]);
      found.add(person, 'link', links[i]);
    });
  }
  return found.all;
}

class Found {
  readonly all: Belonging[] = [];

  add(person: string, kind: LeakKind, text: string | null): void {
    if (text === null || text === '') return;
    this.all.push({ person, kind: kind === 'handle' && isMail(text) ? 'mail address' : kind, text });
  }
}

const isMail = (text: string): boolean => /^[^@\s]+@[^@\s]+\.[^@\s]+$/.test(text);

/** So many are told. */
const MOST_TOLD = 200;

/** The same thing in the same place is told once. */
export function told(leaks: Iterable<Leak>): Leaks {
  const once = new Map<string, Leak>();
  for (const leak of leaks) {
    const key = JSON.stringify([leak.place, leak.kind, handleKey(leak.text)]);
    if (!once.has(key)) once.set(key, leak);
  }
  return { leaks: [...once.values()].slice(0, MOST_TOLD), total: once.size };
}

/** Where there is nobody to be found. */
export const NO_LEAKS: Leaks = { leaks: [], total: 0 };
