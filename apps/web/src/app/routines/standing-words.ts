import type { StandingWhen } from '@pebble/contract';

/** By the number of the day, 0 for Sunday. */
export const WEEKDAYS = [
  'Sunday',
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
] as const;

/** When a routine runs by itself. @param collected the name of what is collected anew before it */
export function standingWords(when: StandingWhen, collected: string | null): string {
  switch (when.on) {
    case 'import':
      return 'after each import of files';
    case 'collecting':
      return 'after each collecting run';
    case 'time': {
      const day = when.weekday === null ? 'each day' : `each ${WEEKDAYS[when.weekday]}`;
      const first =
        when.collect === null ? '' : `, once “${collected ?? 'a run that was forgotten'}” is collected anew`;
      return `${day} at ${when.at} (${when.zone})${first}`;
    }
  }
}
