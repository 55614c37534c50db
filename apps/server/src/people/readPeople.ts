import type { LeakQuestion, Leaks, People } from '@pebble/contract';
import { categoriesOf, nodeLabels, publishedNodes, publishedTitles, textsIn } from '@pebble/core';
import { readDecisions } from '../storage/decisions';
import { readTable } from '../storage/files/tables';
import { findNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { countPseudonyms, readNaming } from '../storage/people';
import { identityFinder, told } from './identities';
import { namesGiven, publishedNames } from './publishedNames';

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
  if (!(await areCovered(store))) return NONE;
  const finder = await identityFinder(store);
  return told(texts.flatMap(({ place, text }) => finder.find(place, text)));
}

/** The same in the tables of a network as they go out: their names of columns, and every text in them. */
export async function findNetworkLeaks(store: Store, id: string): Promise<Leaks> {
  if (!(await areCovered(store))) return NONE;
  const network = (await findNetwork(store, id))!;
  const own = readTable(store.folder, id, 'nodes');
  const published = await publishedNames(store, network, own);
  const names = namesGiven(published);
  const nodes = names ? publishedNodes(own, names, published.leftOut) : own;
  const kept = new Set(names ? [...names.keys()].filter((v) => names[v] === null) : []);
  const finder = await identityFinder(store);
  const leaks = [...finder.find('name of the network', network.name)];
  for (const [table, columns] of [
    ['nodes', nodes],
    ['ties', readTable(store.folder, id, 'edges')],
  ] as const)
    for (const [column, values] of Object.entries(columns)) {
      leaks.push(...finder.find(`${table}, name of a column`, column));
      if (ArrayBuffer.isView(values)) continue;
      const isCalled = table === 'nodes' && (column === 'handle' || column === 'name');
      textsIn(values).forEach((text, row) => {
        if (!isCalled || !kept.has(row)) leaks.push(...finder.find(`${table}, column “${column}”`, text));
      });
    }
  const titlesOut = names ? publishedTitles(network.titles, nodeLabels(own), names) : network.titles;
  for (const [column, titles] of Object.entries(titlesOut))
    for (const title of Object.values(titles)) leaks.push(...finder.find(`titles of “${column}”`, title));
  return told(leaks);
}

const NONE: Leaks = { leaks: [], total: 0 };

async function areCovered(store: Store): Promise<boolean> {
  return (await readNaming(store)).form !== 'as they are';
}
