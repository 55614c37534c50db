import type { Leaks } from '@pebble/contract';
import { handleKey } from '@pebble/core';
import { IdentityFinder, type Identity, type Leak } from '@pebble/core/files';
import { columnsOf } from '../storage/bulk';
import { readDecisions } from '../storage/decisions';
import type { Store } from '../storage/open';
import { readNaming } from '../storage/people';
import { keepersOf } from './keepers';
import { everyPerson } from './persons';

/** Finds the people of a study who have pseudonyms: by handles, names, addresses of mail, and by numbers and links of their messages. */
export async function identityFinder(store: Store): Promise<IdentityFinder> {
  const isKept = await keepersOf(store, await readNaming(store));
  const identities: Identity[] = [];
  const add = (kind: Identity['kind'], text: string | null): void => {
    if (text !== null && text !== '')
      identities.push({ kind: kind === 'handle' && isMail(text) ? 'mail address' : kind, text });
  };
  for (const table of ['account', 'parked_account']) {
    const [keys, handles, names] = columnsOf(store, 3, `select handle_key, handle, name from ${table}`, []);
    keys.forEach((key, i) => {
      if (isKept(String(key))) return;
      add('handle', String(handles[i]));
      add('name', names[i] as string | null);
    });
  }
  for (const person of await everyPerson(store)) if (!isKept(person)) add('handle', person);
  for (const { key, verdict } of await readDecisions(store, ['account']))
    if (verdict.verdict === 'rename' && !isKept(key)) add('name', verdict.label);
  const [authors, messages, links] = columnsOf(
    store,
    3,
    'select a.handle_key, m.key, m.link from message m join account a on a.id = m.author_id',
    [],
  );
  authors.forEach((author, i) => {
    if (isKept(String(author))) return;
    add('message', String(messages[i]));
    add('link', links[i] as string | null);
  });
  return new IdentityFinder(identities);
}

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

const isMail = (text: string): boolean => /^[^@\s]+@[^@\s]+\.[^@\s]+$/.test(text);
