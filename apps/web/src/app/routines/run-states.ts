import type { RoutineRunState } from '@pebble/contract';

/** What is said of a run. */
export const RUN_STATES: Readonly<Record<RoutineRunState, string>> = {
  waiting: 'waits for its turn',
  running: 'is running',
  done: 'done',
  incomplete: 'done in part',
  cancelled: 'stopped',
  interrupted: 'interrupted when the application was ended',
};
