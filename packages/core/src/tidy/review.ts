import type { Review } from '@pebble/contract';
import { formatCount } from '../words/sentence';
import type { Occurrences } from '../weaves/common/occurrences';

/** What was found of a thing. */
export interface Tallied {
  readonly messages: number;
  readonly authors: number;
  /** Milliseconds since 1970, NaN where no message is dated. */
  readonly first: number;
  readonly last: number;
  /** A message in which it stands: the first one. */
  readonly example: number;
}

/** Counts of each thing, in the order of their numbers; a thing that stands nowhere has no messages. */
export function tallyThings(occurrences: Occurrences, things: number): Tallied[] {
  const { count, message, author, thing, time } = occurrences;
  const messages = new Float64Array(things);
  const first = new Float64Array(things).fill(NaN);
  const last = new Float64Array(things).fill(NaN);
  const example = new Float64Array(things).fill(NaN);
  const lastMessage = new Float64Array(things).fill(-1);
  const authors = Array.from({ length: things }, () => new Set<number>());
  for (let i = 0; i < count; i++) {
    const t = thing[i];
    if (lastMessage[t] === message[i]) continue;
    lastMessage[t] = message[i];
    if (messages[t]++ === 0) example[t] = message[i];
    authors[t].add(author[i]);
    if (!(first[t] <= time[i])) first[t] = Number.isNaN(time[i]) ? first[t] : time[i];
    if (!(last[t] >= time[i])) last[t] = Number.isNaN(time[i]) ? last[t] : time[i];
  }
  return authors.map((set, t) => ({
    messages: messages[t],
    authors: set.size,
    first: first[t],
    last: last[t],
    example: example[t],
  }));
}

/**
 * How far a review is.
 * @param states what was decided of the things, the most used first
 */
export function reviewOf(
  states: readonly ('open' | 'kept' | 'dropped' | 'merged')[],
  [one, many]: readonly [string, string],
): Review {
  const found = states.length;
  const count = (state: string): number => states.filter((other) => other === state).length;
  const dropped = count('dropped');
  const merged = count('merged');
  const reviewed = found - count('open');
  const firstOpen = states.indexOf('open');
  const mostUsed = found === 0 ? 0 : (firstOpen < 0 ? found : firstOpen) / found;
  const share = (part: number): string => `${((100 * part) / Math.max(1, reviewed)).toFixed(1)} %`;
  const parts = [
    `${formatCount(reviewed)} of ${formatCount(found)} ${found === 1 ? one : many} reviewed`,
    ...(mostUsed > 0 && mostUsed < 1
      ? [`the most used ${(100 * mostUsed).toFixed(mostUsed < 0.1 ? 1 : 0)} % among them`]
      : []),
  ];
  const ends = [
    ...(dropped > 0 ? [`${formatCount(dropped)} dropped (${share(dropped)} of them)`] : []),
    ...(merged > 0 ? [`${formatCount(merged)} merged into others`] : []),
  ];
  return {
    found,
    reviewed,
    dropped,
    merged,
    mostUsed,
    sentence: `${[parts.join(', '), ...ends].join('; ')}.`,
  };
}
