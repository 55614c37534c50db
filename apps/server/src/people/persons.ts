import type { Network } from '@pebble/contract';
import { handleKey, kindOf, textsIn, textsOf, type TableColumns } from '@pebble/core';
import { columnsOf } from '../storage/bulk';
import type { Store } from '../storage/open';
import { readTable } from '../storage/files/tables';

/** Everybody that a study knows, and every node of networks that came finished from a file, by the key of the person. */
export async function everyPerson(store: Store): Promise<string[]> {
  const keys = ['account', 'parked_account'].flatMap(
    (table) => columnsOf(store, 1, `select handle_key from ${table} order by id`, [])[0] as string[],
  );
  const imported = await store.query
    .selectFrom('network')
    .select('id')
    .where('weave', '=', 'null')
    .where('deleted_at', 'is', null)
    .execute();
  for (const { id } of imported)
    keys.push(...importedPersons(textsOf(readTable(store.folder, id, 'nodes'), 'handle')));
  return keys;
}

/** Which person each node of a network is; null for nodes that are no accounts. */
export function personsOf(store: Store, { weave }: Network, nodes: TableColumns): (string | null)[] {
  const handles = textsOf(nodes, 'handle');
  if (!weave) return importedPersons(handles);
  const { accounts, things } = kindOf(weave).sorts(weave);
  if (!accounts) return handles.map(() => null);
  const keys = accountKeys(store);
  // Of two sorts accounts are one, unless both are.
  const modes = things !== null && 'mode' in nodes ? textsIn(nodes['mode']) : null;
  return textsIn(nodes['id']).map((id, v) =>
    modes && modes[v] !== 'account' ? null : (keys.get(Number(id)) ?? handleKey(handles[v])),
  );
}

/** The nodes of a file are known by their handles; those that differ in capitals alone are different ones there. */
function importedPersons(handles: readonly string[]): string[] {
  const first = new Map<string, string>();
  return handles.map((handle) => {
    const key = handleKey(handle);
    if (!first.has(key)) first.set(key, handle);
    return first.get(key) === handle ? key : `=${handle}`;
  });
}

/** Accounts, those of sources that were taken out included, by their numbers. */
function accountKeys(store: Store): Map<number, string> {
  const sql = 'select id, handle_key from parked_account union select id, handle_key from account';
  const [ids, keys] = columnsOf(store, 2, sql, []) as [number[], string[]];
  return new Map(ids.map((id, i) => [id, keys[i]]));
}
