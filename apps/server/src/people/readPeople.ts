import type { Leak, LeakQuestion, Leaks, People } from '@pebble/contract';
import { categoriesOf, textsIn, type TableColumns } from '@pebble/core';
import type { IdentityFinder } from '@pebble/core/files';
import { readDecisions } from '../storage/decisions';
import { readTable } from '../storage/files/tables';
import { findNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { countPseudonyms, readNaming } from '../storage/people';
import { hiddenPeople, NO_LEAKS, told } from './identities';
import { publishedTable, type PublishedTable } from './publishedTable';

/** How people of a study are called in what is published. */
export async function readPeople(store: Store): Promise<People> {
  return {
    naming: await readNaming(store),
    known: await countPseudonyms(store),
    categories: [...categoriesOf(await readDecisions(store, ['account'])).keys()].sort(),
  };
}

/** Where people can be found in texts that are to be published; nowhere as long as all are called as they are. */
export async function findLeaks(store: Store, { texts }: LeakQuestion): Promise<Leaks> {
  const finder = await hiddenPeople(store);
  return finder ? told(texts.flatMap(({ place, text }) => finder.find(place, text))) : NO_LEAKS;
}

/** The same in the tables of a network as they go out: their names of columns, and every text in them. */
export async function findNetworkLeaks(store: Store, id: string): Promise<Leaks> {
  const finder = await hiddenPeople(store);
  if (!finder) return NO_LEAKS;
  const network = (await findNetwork(store, id))!;
  const table = await publishedTable(store, network);
  return told(leaksInTables(finder, network.name, table, readTable(store.folder, id, 'edges')));
}

/** Where people can be found in the name, the tables and the titles of a network as they go out. */
export function leaksInTables(
  finder: IdentityFinder,
  name: string,
  { nodes, titles, isHidden }: PublishedTable,
  ties: TableColumns,
): Leak[] {
  const leaks: Leak[] = [];
  const look = (place: string, text: string): void => void leaks.push(...finder.find(place, text));
  look('name of the network', name);
  const tables = { nodes, ties };
  for (const [table, columns] of Object.entries(tables))
    for (const [column, values] of Object.entries(columns)) {
      look(`${table}, name of a column`, column);
      if (ArrayBuffer.isView(values)) continue;
      const isName = table === 'nodes' && (column === 'handle' || column === 'name');
      textsIn(values).forEach((text, row) => {
        // Who keeps the name is called so, also where another has it as a word.
        if (!isName || isHidden(row)) look(`${table}, column “${column}”`, text);
      });
    }
  for (const [column, byValue] of Object.entries(titles))
    for (const title of Object.values(byValue)) look(`titles of “${column}”`, title);
  return leaks;
}
