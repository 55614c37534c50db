import type { WrittenRoutine } from '@pebble/contract';
import { file, INSIDE, least, mapped, PERIOD, RESULTS, SEED, TAKE_IN } from './parts';

/** Hashtags tied by the posts in which they stand together. */
export const hashtagsTogether: WrittenRoutine = {
  form: 1,
  name: 'Which hashtags go together',
  description:
    'Hashtags are tied when they stand in one post. The tag by which posts were collected stands in nearly all of them; leave it out.',
  questions: [
    file('Which file of posts?'),
    { name: 'without', kind: 'list', ask: 'Which tags are left out?', default: [] },
    least('Posts for each tie at least?', 2),
    ...PERIOD,
    SEED,
  ],
  steps: [
    TAKE_IN,
    ...mapped('Hashtags that go together', {
      what: 'together',
      things: 'hashtag',
      without: { ask: 'without' },
      atLeast: { ask: 'least' },
      ...INSIDE,
    }),
  ],
  outputs: RESULTS,
};
