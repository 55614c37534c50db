import type { Network } from '@pebble/contract';
import { groupCodes, isNumbered, type GroupCodes, type MapNetwork } from '@pebble/core';

/** Columns by which the nodes of a network fall into groups, communities first; those with a value of its own for nearly each node are no groups. */
export function groupingsOf(network: Network | null, data: MapNetwork | null): Network['columns'] {
  if (!network || !data) return [];
  const columns = network.columns.filter(
    ({ name, type }) => type === 'category' && name in data.nodes && name !== 'component',
  );
  return columns.sort((a, b) => Number(b.name === 'community') - Number(a.name === 'community'));
}

/** What a group is called on the screen. @param titles of the groups of its column */
export function groupName(name: string, titles: Readonly<Record<string, string>> = {}): string {
  if (name in titles) return titles[name];
  if (name === '') return 'without a group';
  return isNumbered(name) ? `group ${name}` : name;
}

export function codesOf(data: MapNetwork, column: string): GroupCodes {
  return groupCodes(data.nodes[column]);
}
