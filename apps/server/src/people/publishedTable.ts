import type { Network } from '@pebble/contract';
import { nodeLabels, publishedNodes, publishedTitles, type TableColumns } from '@pebble/core';
import { readTable } from '../storage/files/tables';
import type { Store } from '../storage/open';
import { namesGiven, publishedNames } from './publishedNames';

/** The nodes of a network as they go out, and the titles of its groups. */
export interface PublishedTable {
  readonly nodes: TableColumns;
  readonly titles: Network['titles'];
  /** Whether the row of a node is about somebody who has a pseudonym. */
  isHidden(row: number): boolean;
}

/**
 * People by their pseudonyms, where they have any.
 * @param needed columns that go out though they would be left out
 */
export async function publishedTable(
  store: Store,
  network: Network,
  needed: ReadonlySet<string> = new Set(),
): Promise<PublishedTable> {
  const nodes = readTable(store.folder, network.id, 'nodes');
  const called = await publishedNames(store, network, nodes);
  const names = namesGiven(called);
  if (!names) return { nodes, titles: network.titles, isHidden: () => false };
  return {
    nodes: publishedNodes(
      nodes,
      names,
      called.leftOut.filter((name) => !needed.has(name)),
    ),
    titles: publishedTitles(network.titles, nodeLabels(nodes), names),
    isHidden: (row) => names[row] !== null,
  };
}
