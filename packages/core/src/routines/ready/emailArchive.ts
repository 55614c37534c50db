import type { WrittenRoutine } from '@pebble/contract';
import { file, INSIDE, least, mapped, PERIOD, RESULTS, SEED, TAKE_IN } from './parts';

/** Addresses tied by who writes to whom. */
export const emailArchive: WrittenRoutine = {
  form: 1,
  name: 'An email archive: who writes to whom',
  description:
    'Addresses are tied when one writes to another, or has another see a copy. Mail to very many says little of who speaks with whom, and is left out.',
  questions: [
    file('Which archive of mail?'),
    least('Mails for each tie at least?', 1),
    {
      name: 'receivers',
      kind: 'number',
      ask: 'Only mail to at most how many?',
      default: 20,
      least: 1,
      whole: true,
    },
    ...PERIOD,
    SEED,
  ],
  steps: [
    TAKE_IN,
    ...mapped('Who writes to whom', {
      what: 'accounts',
      kinds: ['to', 'cc', 'bcc'],
      atLeast: { ask: 'least' },
      mostReceivers: { ask: 'receivers' },
      ...INSIDE,
    }),
  ],
  outputs: RESULTS,
};
