import type { WrittenRoutine } from '@pebble/contract';
import { file, INSIDE, least, mapped, PERIOD, RESULTS, SEED, TAKE_IN } from './parts';

/** Accounts tied by replies, mentions, quotes and reposts, about one tag or about everything. */
export const whoAddressesWhom: WrittenRoutine = {
  form: 1,
  name: 'Who talks to whom about a tag',
  description:
    'Accounts are tied when one answers, mentions, quotes or reposts another. Groups, leading accounts and the map follow.',
  questions: [
    file('Which file of posts?'),
    { name: 'tag', kind: 'text', ask: 'Only posts with which hashtag? Empty for all.', default: '' },
    least('Messages for each tie at least?', 1),
    ...PERIOD,
    SEED,
  ],
  steps: [
    TAKE_IN,
    ...mapped('Who addresses whom', {
      what: 'accounts',
      kinds: ['reply', 'comment', 'quote', 'mention', 'repost'],
      only: { name: { ask: 'tag' }, filter: { hashtag: { ask: 'tag' } } },
      atLeast: { ask: 'least' },
      ...INSIDE,
    }),
  ],
  outputs: RESULTS,
};
