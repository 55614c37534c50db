import type { WrittenRoutine } from '@pebble/contract';
import { file, INSIDE, least, mapped, PERIOD, RESULTS, SEED, TAKE_IN } from './parts';

/** Videos, or pages, tied by those who comment below both. */
export const sharedCommenters: WrittenRoutine = {
  form: 1,
  name: 'Which videos share commenters',
  description:
    'Videos or pages are tied when the same accounts comment below both; a tie says how many. Two files: the comments, and the videos with their titles.',
  questions: [
    file('Which file of comments?'),
    { name: 'items', kind: 'file', ask: 'Which file of videos or pages?' },
    least('Shared commenters for each tie at least?', 2),
    ...PERIOD,
    SEED,
  ],
  steps: [
    TAKE_IN,
    {
      name: 'titles',
      kind: 'import-source',
      parameters: { upload: { ask: 'items' }, file: { ask: 'items' }, name: { ask: 'items' } },
    },
    ...mapped('Videos that share commenters', {
      what: 'together',
      things: 'item',
      unit: 'author',
      mostInOne: 10_000,
      atLeast: { ask: 'least' },
      ...INSIDE,
    }),
  ],
  outputs: RESULTS,
};
