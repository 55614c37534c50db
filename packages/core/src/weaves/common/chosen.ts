import type { AddressRows } from '../accounts/make';
import type { Occurrences, ThreadOccurrences } from './occurrences';
import { pickNumbers } from './rows';
import { counted } from '../../words/sentence';

/** Whether a message is taken, by its number. */
export type IsTaken = (message: number) => boolean;

/** The rows of messages that are taken, and how many messages were left out. */
export interface Chosen<R> {
  readonly rows: R;
  readonly left: number;
}

/** Who addressed whom in the messages that are taken. */
export function takenAddresses(rows: AddressRows, isTaken: IsTaken): Chosen<AddressRows> {
  const { kept, left } = takenRows(rows, isTaken);
  const of = (values: ArrayLike<number>): Float64Array => pickNumbers(kept, (i) => values[i]);
  const { message, from, to, kinds, time } = rows;
  return {
    rows: {
      count: kept.length,
      message: of(message),
      from: of(from),
      to: of(to),
      kinds: of(kinds),
      time: of(time),
    },
    left,
  };
}

/** Where things stand in the messages that are taken. */
export function takenOccurrences(
  occurrences: ThreadOccurrences,
  isTaken: IsTaken,
): Chosen<ThreadOccurrences> {
  const { kept, left } = takenRows(occurrences, isTaken);
  return { rows: rowsOf(occurrences, kept), left };
}

/** Where things stand in the messages of a time; undated ones are in none that has a bound. */
export function occurrencesWithin(
  occurrences: ThreadOccurrences,
  { from, until }: { readonly from: number | null; readonly until: number | null },
): ThreadOccurrences {
  if (from === null && until === null) return occurrences;
  const [first, end] = [from ?? -Infinity, until ?? Infinity];
  const kept = new Uint32Array(occurrences.count);
  let size = 0;
  for (let i = 0; i < occurrences.count; i++)
    if (occurrences.time[i] >= first && occurrences.time[i] < end) kept[size++] = i;
  return rowsOf(occurrences, kept.subarray(0, size));
}

function rowsOf(occurrences: ThreadOccurrences, kept: Uint32Array): ThreadOccurrences {
  const of = (values: ArrayLike<number>): Float64Array => pickNumbers(kept, (i) => values[i]);
  const { message, author, thing, time, thread, at } = occurrences;
  return {
    count: kept.length,
    message: of(message),
    author: of(author),
    thing: of(thing),
    time: of(time),
    ...(thread ? { thread: of(thread) } : {}),
    ...(at ? { at: of(at) } : {}),
  };
}

/** "12 messages were left out by the choice of messages." */
export function leftNote(left: number): string[] {
  return left === 0
    ? []
    : [`${counted(left, 'message')} ${left === 1 ? 'was' : 'were'} left out by the choice of messages.`];
}

/** Rows of one message stand together. */
function takenRows(
  { message, count }: Pick<Occurrences, 'message' | 'count'>,
  isTaken: IsTaken,
): { kept: Uint32Array; left: number } {
  const kept = new Uint32Array(count);
  let size = 0;
  let left = 0;
  for (let i = 0; i < count;) {
    let end = i;
    while (end < count && message[end] === message[i]) end++;
    if (isTaken(message[i])) for (let j = i; j < end; j++) kept[size++] = j;
    else left++;
    i = end;
  }
  return { kept: kept.subarray(0, size), left };
}
