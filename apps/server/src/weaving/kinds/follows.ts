import type { FollowWeave } from '@pebble/contract';
import { audiences, tidyFollows, weaveFollows, type Woven } from '@pebble/core';
import { readFollows } from '../../storage/occurrences';
import { modeColumn, type NodeColumn } from '../namedWeave';
import type { StudyKind } from './kind';

/** Stands behind the name of a list whose account follows others, and so is a follower too. */
export const LIST_MARK = ' (list)';

/** Followers tied to whom they follow; there are lists, and no messages. */
export const follows: StudyKind<FollowWeave> = {
  count({ store, weave, tidy }) {
    const woven = weaveFollows(tidyFollows(readFollows(store), tidy.now), weave);
    const nameOf = (account: number): string => tidy.labels.get(account) ?? '';
    // A listed account that follows another is a node of either sort.
    const followers = new Set(woven.id.filter((_, v) => woven.mode[v] === 0));
    const labelOf = (account: number, mode: number): string =>
      mode === 1 && followers.has(account) ? `${nameOf(account)}${LIST_MARK}` : nameOf(account);
    return {
      woven,
      labelOf,
      keyOf: null,
      ownColumns(left) {
        const of = audiences(woven, nameOf);
        const key = ({ id, mode }: Pick<Woven, 'id' | 'mode'>, v: number): string => `${mode[v]} ${id[v]}`;
        const audience = new Map(of.map((names, v) => [key(woven, v), names]));
        const values = Array.from(left.id, (_, v) => audience.get(key(left, v)) ?? '');
        const how = 'Which of the listed accounts it follows.';
        const follow: NodeColumn = {
          info: { name: 'follows', title: 'follows', type: 'category', how },
          values,
        };
        return weave.sorts === 'two' ? [modeColumn(left, 'follower', 'list'), follow] : [follow];
      },
      emptiedBy:
        woven.droppedBelowThreshold > 0
          ? `Nobody follows ${weave.listsAtLeast} of the listed accounts. Ask for fewer.`
          : 'There are no follower lists in this study yet.',
    };
  },
  evidence: () => Promise.resolve(null),
};
