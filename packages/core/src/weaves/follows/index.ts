import type { FollowWeave } from '@pebble/contract';
import { formatCount } from '../../words/sentence';
import { mapBy, twoModeMap } from '../common/firstMaps';
import { atLeastTimes } from '../common/least';
import type { Kind } from '../kind';

export type { FollowRows } from './make';

/** Followers tied to whom they follow, as follower lists tell. */
export const follows: Kind<FollowWeave> = {
  nodes: () => ['account', 'accounts'],
  tie: () => 'one follows another',
  // Following is there or is not.
  least: (_, least) => (least === 1 ? '' : atLeastTimes(least)),
  conditions: ({ sorts, listsAtLeast }) => [
    ...(sorts === 'two' ? ['followers and lists are two sorts of nodes'] : []),
    ...(listsAtLeast > 1
      ? [`only followers of ${formatCount(listsAtLeast)} or more of the listed accounts`]
      : []),
  ],
  meaning: ({ sorts }) =>
    sorts === 'two'
      ? 'A tie from A to the list B means: A follows B, as the lists say. A listed account that follows another stands as a follower and as a list.'
      : 'A tie from A to B means: A follows B, as the lists say. The map colours every follower by which of the listed accounts it follows.',
  title: () => 'Who follows whom',
  sorts: () => ({ accounts: true, things: null }),
  tidied: () => ['account'],
  firstMap: ({ sorts }, directed) => {
    if (sorts === 'two') return twoModeMap;
    const column = directed ? 'inDegree' : 'degree';
    return mapBy(column, column, 'follows');
  },
  isDense: false,
  hasMessages: false,
  isByAddress: false,
};
