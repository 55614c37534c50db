import type { GroupWeave } from '@pebble/contract';
import { formatCount, joinWith } from '../../words/sentence';
import { mapBy } from '../common/firstMaps';
import type { Kind } from '../kind';

/** Groups of a network as nodes, tied by the ties between them. */
export const groups: Kind<GroupWeave> = {
  nodes: () => ['group', 'groups'],
  tie: () => 'ties lead from one to the other',
  least: (_, least) => `of weight ${formatCount(least)} or more`,
  conditions: ({ column, open }) => [
    `groups by “${column}”`,
    ...(open.length > 0 ? [`the nodes of ${joinWith('and', open)} are shown singly`] : []),
  ],
  meaning: () =>
    'Each group becomes one node, sized by its members. Weights of all ties between two groups are added up; those within a group are a tie to itself.',
  title: ({ column }) => `Groups by ${column}`,
  sorts: () => ({ accounts: false, things: null }),
  tidied: () => [],
  firstMap: () => mapBy('members', 'members', 'group'),
  isDense: false,
  hasMessages: true,
  isByAddress: false,
};
