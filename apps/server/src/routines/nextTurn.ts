import type { StandingWhen } from '@pebble/contract';
import { Cron } from 'croner';

/** The next moment (ISO 8601) after another at which a routine runs by the clock of its zone; null where it does not run by the clock. */
export function nextTurn(when: StandingWhen, after: Date): string | null {
  if (when.on !== 'time') return null;
  const [hour, minute] = when.at.split(':').map(Number);
  const day = when.weekday ?? '*';
  const clock = new Cron(`${minute} ${hour} * * ${day}`, { timezone: when.zone, paused: true });
  return clock.nextRun(after)!.toISOString();
}
