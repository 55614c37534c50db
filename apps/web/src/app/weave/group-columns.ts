import type { Network } from '@pebble/contract';

/** Columns of a network by which its nodes fall into groups, communities first. */
export function groupColumns(networks: readonly Network[], id: string): Network['columns'] {
  const columns = networks.find((network) => network.id === id)?.columns ?? [];
  const groups = columns.filter(({ type, name }) => type !== 'number' && name !== 'component');
  return groups.sort((a, b) => Number(b.name === 'community') - Number(a.name === 'community'));
}
