import { THROUGH_TIME, type ColumnInfo } from '@pebble/contract';
import { ANSWER_COLUMNS, NODE_QUESTIONS } from './questions';

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

/** What the columns say where ties are no messages from one account to another. */
const WITHOUT_MESSAGES: Readonly<Record<string, string>> = {
  messages: 'Messages in which it stands, or which it wrote.',
  inDegree: 'Other nodes with a tie to it.',
  outDegree: 'Other nodes that it has a tie to.',
  degree: 'Other nodes tied with it.',
  inStrength: 'Weights of the ties to it, added up.',
  outStrength: 'Weights of the ties from it, added up.',
  strength: 'Weights of all its ties, added up.',
};
const DIRECTED_ONLY = new Set(['inDegree', 'outDegree', 'inStrength', 'outStrength']);

/** The columns of a network's node table that are computed. */
export function nodeColumns({
  directed,
  hasMessages,
  isOfAccounts = hasMessages,
}: {
  directed: boolean;
  hasMessages: boolean;
  /** Whether its ties are messages from one account to another. */
  isOfAccounts?: boolean;
}): ColumnInfo[] {
  return NODE_COLUMNS.filter(
    ({ name }) => (directed || !DIRECTED_ONLY.has(name)) && (hasMessages || name !== 'messages'),
  ).map((column) => {
    const how = (isOfAccounts ? undefined : WITHOUT_MESSAGES[column.name]) ?? column.how;
    return directed
      ? { ...column, how }
      : { ...column, how: how.replace(' ordered', '').replace(', along the direction of ties,', '') };
  });
}

const OWN = new Set([
  'id',
  'handle',
  'name',
  THROUGH_TIME,
  ...NODE_COLUMNS.map(({ name }) => name),
  ...ANSWER_COLUMNS,
]);

/** Whether the node table needs a column of this name for itself. */
export function isTakenColumn(name: string): boolean {
  return OWN.has(name);
}

export function columnTitle(name: string): string {
  const known = [...NODE_COLUMNS, ...NODE_QUESTIONS.flatMap(({ columns }) => columns)];
  return known.find((column) => column.name === name)?.title ?? name;
}

export function isCategory(name: string): boolean {
  return NODE_COLUMNS.find((column) => column.name === name)?.type === 'category';
}

/** How a category came about whose values were set by hand, node by node. */
export const SET_BY_HAND = 'Set by hand for chosen nodes.';
