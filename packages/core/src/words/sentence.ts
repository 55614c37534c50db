import type { AddressKind } from '@pebble/contract';

/** What one account does to another, by kind of address. */
export const ADDRESS_VERB: Readonly<Record<AddressKind, string>> = {
  reply: 'replies to',
  comment: 'answers a comment of',
  quote: 'quotes',
  mention: 'mentions',
  repost: 'reposts',
  to: 'writes to',
  cc: 'sends a copy to',
  bcc: 'sends a blind copy to',
};

/** "replies to, mentions or reposts" */
export function verbPhrase(kinds: readonly AddressKind[]): string {
  return joinWith(
    'or',
    kinds.map((kind) => ADDRESS_VERB[kind]),
  );
}

/** "once", "twice", "3 times" */
export function timesPhrase(times: number): string {
  if (times === 1) return 'once';
  return times === 2 ? 'twice' : `${formatCount(times)} times`;
}

/**
 * "1 March to 31 May 2026", "on 1 March 2026", in UTC; the last day is the day before `until` when that is a midnight. A period that begins or
 * ends within a day is told with hours: "1 March 2026, 14:30 to 3 March 2026, 00:00".
 */
export function periodPhrase(from: number | null, until: number | null): string {
  if (from === null && until === null) return 'at any time';
  if (!isMidnight(from) || !isMidnight(until)) {
    if (from === null) return `until ${momentPhrase(until!)}`;
    return until === null ? `from ${momentPhrase(from)}` : `${momentPhrase(from)} to ${momentPhrase(until)}`;
  }
  if (from === null) return `until ${dayPhrase(until! - 1, true)}`;
  if (until === null) return `from ${dayPhrase(from, true)}`;
  if (dayPhrase(from, true) === dayPhrase(until - 1, true)) return `on ${dayPhrase(from, true)}`;
  const sameYear = new Date(from).getUTCFullYear() === new Date(until - 1).getUTCFullYear();
  return `${dayPhrase(from, !sameYear)} to ${dayPhrase(until - 1, true)}`;
}

function isMidnight(time: number | null): boolean {
  return time === null || time % 86_400_000 === 0;
}

/** "1 March 2026, 14:30", in UTC; with seconds where they are not 0. */
function momentPhrase(time: number): string {
  const clock = new Date(time).toISOString().slice(11, 19).replace(/:00$/, '');
  return `${dayPhrase(time, true)}, ${clock}`;
}

const MONTHS = 'January February March April May June July August September October November December'.split(
  ' ',
);

export function dayPhrase(time: number, withYear: boolean): string {
  const day = new Date(time);
  const phrase = `${day.getUTCDate()} ${MONTHS[day.getUTCMonth()]}`;
  return withYear ? `${phrase} ${day.getUTCFullYear()}` : phrase;
}

/** 12,345: digits in groups of three, the same in every locale. */
export function formatCount(value: number): string {
  return String(value).replace(/\B(?<!\.\d*)(?=(\d{3})+(?!\d))/g, ',');
}

/** "1 message", "12,345 messages" */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${formatCount(count)} ${count === 1 ? one : many}`;
}

/** The same text with a capital at its beginning. */
export function capital(text: string): string {
  return `${text.slice(0, 1).toUpperCase()}${text.slice(1)}`;
}

export function joinWith(word: string, items: readonly string[]): string {
  if (items.length < 2) return items.join('');
  return `${items.slice(0, -1).join(', ')} ${word} ${items.at(-1)}`;
}
