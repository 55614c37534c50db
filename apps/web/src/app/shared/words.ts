import { LONGEST_NAME } from '@pebble/contract';

export { counted } from '@pebble/core/first';

/** 12 March 2026, 23:48 in UTC. */
export function moment(time: number | null): string {
  if (time === null) return 'no date';
  return new Date(time).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    timeZone: 'UTC',
  });
}

/** 12 March 2026 in UTC. */
export function day(time: number): string {
  return new Date(time).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: 'UTC',
  });
}

/** 12 Mar, 23:48:05 in UTC. */
export function instant(time: number | string): string {
  return new Date(time).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    timeZone: 'UTC',
  });
}

/** 23:48:05 where the reader is. */
export const timeHere = (time: number): string => new Date(time).toLocaleTimeString('en-GB');

/** The name of a language by its code. */
export function languageName(code: string): string {
  try {
    return new Intl.DisplayNames('en', { type: 'language' }).of(code) ?? code;
  } catch {
    return code;
  }
}

/** "less than a second", "12 seconds", "3 minutes" for a duration in milliseconds. */
export function duration(milliseconds: number): string {
  if (milliseconds < 1000) return `${Math.max(1, Math.round(milliseconds))} ms`;
  if (milliseconds < 90_000) return `${(milliseconds / 1000).toFixed(milliseconds < 10_000 ? 1 : 0)} s`;
  return `${Math.round(milliseconds / 60_000)} minutes`;
}

export function bytes(size: number): string {
  if (size < 1024) return `${size} bytes`;
  if (size < 1024 ** 2) return `${(size / 1024).toFixed(0)} KB`;
  return size < 1024 ** 3 ? `${(size / 1024 ** 2).toFixed(1)} MB` : `${(size / 1024 ** 3).toFixed(1)} GB`;
}

/** A text of so many characters at most, with a mark where it was cut. */
export function shortened(text: string, most = LONGEST_NAME): string {
  return text.length <= most ? text : `${text.slice(0, most - 1).trimEnd()}…`;
}
