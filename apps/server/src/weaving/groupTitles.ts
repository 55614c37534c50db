import type { Network } from '@pebble/contract';
import { nodeLabels, numbersOf, textsIn, typicalWords, type TableColumns } from '@pebble/core';
import type { Store } from '../storage/open';
import { readTable } from '../storage/files/tables';
import { evidenceOf } from './evidenceOf';

/** Titles are looked for of so many of the largest groups. */
const MOST = 24;

/**
 * A title for each group of a column that suggests itself: the hashtags that are typical of its messages, or, where there are no messages or
 * nothing is typical, the node that has most ties.
 */
export async function groupTitles(
  store: Store,
  network: Network,
  column: string,
  least: number,
): Promise<Record<string, string>> {
  const nodes = readTable(store.folder, network.id, 'nodes');
  if (!(column in nodes)) return {};
  const groups = membersOf(nodes, column, least);
  const evidence = await evidenceOf(store, network);
  const words = [];
  if (evidence)
    for (const [group, members] of groups) {
      const { messages, hashtags } = await evidence.portrait(0, members);
      words.push({ group, messages, words: new Map(hashtags.map((one) => [one.tag, one.messages])) });
    }
  const typical = typicalWords(words);
  const titles: Record<string, string> = {};
  for (const [group, members] of groups) {
    const own = typical.get(group);
    titles[group] = own ? own.map((word) => `#${word}`).join(' ') : `round ${leaderOf(nodes, members)}`;
  }
  return titles;
}

function membersOf(nodes: TableColumns, column: string, least: number): [string, number[]][] {
  const members = new Map<string, number[]>();
  textsIn(nodes[column]).forEach((group, node) => {
    const own = members.get(group);
    if (own) own.push(node);
    else members.set(group, [node]);
  });
  return [...members]
    .filter(([group, all]) => group !== '' && all.length >= least)
    .sort((a, b) => b[1].length - a[1].length)
    .slice(0, MOST);
}

function leaderOf(nodes: TableColumns, members: readonly number[]): string {
  const degree = numbersOf(nodes, 'inDegree' in nodes ? 'inDegree' : 'degree');
  return nodeLabels(nodes)[members.reduce((best, v) => (degree[v] > degree[best] ? v : best))];
}
