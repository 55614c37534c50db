import type { SliceBy } from '@pebble/contract';
import { capital, dayPhrase } from '../../words/sentence';

/** A part of a time: from a moment on, and before another, in milliseconds since 1970. */
export interface Slice {
  readonly from: number;
  readonly until: number;
  readonly title: string;
}

const DAY = 86_400_000;
/** Monday 5 January 1970. */
const MONDAY = 4 * DAY;

/**
 * Cuts a time into days, weeks from Monday, or months (UTC), or at the moment of an event. The first and the last slice may be shorter.
 * @param event the moment; needed for slices around an event, which must lie within the time
 */
export function slicesOf(from: number, until: number, by: SliceBy, event: number | null = null): Slice[] {
  if (by === 'event') {
    if (event === null || event <= from || event >= until) return [];
    const at = momentPhrase(event);
    return [
      { from, until: event, title: `Before ${at}` },
      { from: event, until, title: `From ${at} on` },
    ];
  }
  const slices: Slice[] = [];
  for (let at = startOf(from, by); at < until; at = nextAfter(at, by))
    slices.push({
      from: Math.max(at, from),
      until: Math.min(nextAfter(at, by), until),
      title: titleOf(at, by),
    });
  return slices;
}

type Regular = Exclude<SliceBy, 'event'>;

function startOf(time: number, by: Regular): number {
  switch (by) {
    case 'day':
      return Math.floor(time / DAY) * DAY;
    case 'week':
      return Math.floor((time - MONDAY) / (7 * DAY)) * 7 * DAY + MONDAY;
    case 'month': {
      const date = new Date(time);
      return Date.UTC(date.getUTCFullYear(), date.getUTCMonth());
    }
  }
}

function nextAfter(start: number, by: Regular): number {
  switch (by) {
    case 'day':
      return start + DAY;
    case 'week':
      return start + 7 * DAY;
    case 'month': {
      const date = new Date(start);
      return Date.UTC(date.getUTCFullYear(), date.getUTCMonth() + 1);
    }
  }
}

function titleOf(start: number, by: Regular): string {
  switch (by) {
    case 'day':
      return dayPhrase(start, true);
    case 'week':
      return `Week of ${dayPhrase(start, true)}`;
    case 'month':
      return capital(dayPhrase(start, true).replace(/^\d+ /, ''));
  }
}

/** "3 September 2031, 14:30" */
function momentPhrase(time: number): string {
  const clock = new Date(time).toISOString().slice(11, 16);
  return clock === '00:00' ? dayPhrase(time, true) : `${dayPhrase(time, true)}, ${clock}`;
}
