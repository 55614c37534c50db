import type { WrittenRoutine } from '@pebble/contract';
import { file, mapped, RESULTS, SEED, TAKE_IN } from './parts';

/** Accounts tied to those whose follower lists they stand in. */
export const sharedAudiences: WrittenRoutine = {
  form: 1,
  name: 'Shared audiences of some accounts',
  description:
    'From follower lists, one file for each account: who follows several of them, and which of them share followers.',
  questions: [
    file('Which follower lists? Several files can be given.'),
    {
      name: 'lists',
      kind: 'number',
      ask: 'Followers of at least how many of the accounts?',
      default: 2,
      least: 1,
      whole: true,
    },
    SEED,
  ],
  steps: [TAKE_IN, ...mapped('Who follows whom', { what: 'follows', listsAtLeast: { ask: 'lists' } })],
  outputs: RESULTS,
};
