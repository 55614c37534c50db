import type { ColumnInfo } from '@pebble/contract';

/** The columns of the node table with what they say and how they were computed. */
export const NODE_COLUMNS: readonly ColumnInfo[] = [
  { name: 'messages', title: 'messages', type: 'number', how: 'Messages by this account in the period.' },
  {
    name: 'inDegree',
    title: 'in-degree',
    type: 'number',
    how: 'Other accounts that reply to, mention or repost it.',
  },
  {
    name: 'outDegree',
    title: 'out-degree',
    type: 'number',
    how: 'Other accounts that it replies to, mentions or reposts.',
  },
  {
    name: 'degree',
    title: 'degree',
    type: 'number',
    how: 'Other accounts tied with it in either direction.',
  },
  { name: 'inStrength', title: 'in-strength', type: 'number', how: 'Messages by others that address it.' },
  {
    name: 'outStrength',
    title: 'out-strength',
    type: 'number',
    how: 'Messages by it that address others, once for each account addressed.',
  },
  { name: 'strength', title: 'strength', type: 'number', how: 'In-strength and out-strength together.' },
  {
    name: 'betweenness',
    title: 'betweenness',
    type: 'number',
    how: 'Share of all ordered pairs of other accounts whose shortest path, along the direction of ties, runs through it (0 to 1; Brandes 2001).',
  },
  { name: 'component', title: 'component', type: 'category', how: 'Weak component; 1 is the largest.' },
  {
    name: 'community',
    title: 'community',
    type: 'category',
    how: 'Group found by the Louvain method (Blondel et al. 2008); 1 is the largest.',
  },
];

export function columnTitle(name: string): string {
  return NODE_COLUMNS.find((column) => column.name === name)?.title ?? name;
}

export function isCategory(name: string): boolean {
  return NODE_COLUMNS.find((column) => column.name === name)?.type === 'category';
}
