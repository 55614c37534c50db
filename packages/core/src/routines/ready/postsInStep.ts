import type { WrittenRoutine } from '@pebble/contract';
import { file, INSIDE, least, mapped, PERIOD, RESULTS, SEED, TAKE_IN } from './parts';

/** Accounts tied by posting the same at nearly the same time, again and again. */
export const postsInStep: WrittenRoutine = {
  form: 1,
  name: 'Who posts in step',
  description:
    'Accounts are tied when they post the same within a short time, again and again. That can be a campaign, one person with several accounts, or a programme; read the posts behind each tie.',
  questions: [
    file('Which file of posts?'),
    {
      name: 'same',
      kind: 'choice',
      ask: 'The same of what?',
      default: 'text',
      choices: ['text', 'link', 'hashtags'],
    },
    {
      name: 'seconds',
      kind: 'number',
      ask: 'Within how many seconds?',
      default: 600,
      least: 1,
      most: 86_400,
      whole: true,
    },
    least('How often at least?', 2),
    ...PERIOD,
    SEED,
  ],
  steps: [
    TAKE_IN,
    ...mapped('Who posts in step', {
      what: 'in-step',
      same: { ask: 'same' },
      seconds: { ask: 'seconds' },
      atLeast: { ask: 'least' },
      ...INSIDE,
    }),
  ],
  outputs: RESULTS,
};
