import { IN_REPOST, KIND_BIT, type AddressRows } from '../weaves/accounts';
import type { FollowRows } from '../weaves/follows';
import type { ThreadOccurrences } from '../weaves/common/occurrences';

/** What a thing is now, by its number; -1 for one that is left out. Where it is null, nothing was decided and all stays as it is. */
export type Now = (thing: number) => number;

/**
 * Who addressed whom after accounts were merged and left out. A message of one that is left out goes; one that addressed nobody else
 * stays as a message that addresses nobody. Two rows of a message to what is one account now become one, with the kinds of both.
 */
export function tidyAddresses(rows: AddressRows, now: Now | null): AddressRows {
  if (!now) return rows;
  const message: number[] = [];
  const from: number[] = [];
  const to: number[] = [];
  const kinds: number[] = [];
  const time: number[] = [];
  const add = (i: number, author: number, target: number, mask: number): void => {
    message.push(rows.message[i]);
    from.push(author);
    to.push(target);
    kinds.push(mask);
    time.push(rows.time[i]);
  };
  for (let i = 0; i < rows.count;) {
    const begin = i;
    while (i < rows.count && rows.message[i] === rows.message[begin]) i++;
    const author = now(rows.from[begin]);
    if (author < 0) continue;
    const masks = new Map<number, number>();
    let all = 0;
    for (let j = begin; j < i; j++) {
      const target = now(rows.to[j]);
      all |= rows.kinds[j];
      if (target >= 0 && rows.kinds[j] !== 0) masks.set(target, (masks.get(target) ?? 0) | rows.kinds[j]);
    }
    const inRepost = all & KIND_BIT.repost ? IN_REPOST : 0;
    if (masks.size === 0) add(begin, author, author, inRepost);
    for (const [target, mask] of masks) add(begin, author, target, mask | inRepost);
  }
  return { count: message.length, message, from, to, kinds, time };
}

/** Where things stand after things and accounts were merged and left out. */
export function tidyOccurrences<P extends ThreadOccurrences>(
  occurrences: P,
  thingNow: Now | null,
  accountNow: Now | null,
): P {
  if (!thingNow && !accountNow) return occurrences;
  const kept: number[] = [];
  const thing: number[] = [];
  const author: number[] = [];
  for (let i = 0; i < occurrences.count; i++) {
    const what = thingNow ? thingNow(occurrences.thing[i]) : occurrences.thing[i];
    const who = accountNow ? accountNow(occurrences.author[i]) : occurrences.author[i];
    if (what < 0 || who < 0) continue;
    kept.push(i);
    thing.push(what);
    author.push(who);
  }
  const of = (values: ArrayLike<number>): Float64Array => Float64Array.from(kept, (i) => values[i]);
  return {
    ...occurrences,
    count: kept.length,
    message: of(occurrences.message),
    time: of(occurrences.time),
    thing,
    author,
    ...(occurrences.thread ? { thread: of(occurrences.thread) } : {}),
    ...(occurrences.at ? { at: of(occurrences.at) } : {}),
  };
}

/** Who follows whom after accounts were merged and left out, each pair once; nobody follows itself. */
export function tidyFollows(rows: FollowRows, now: Now | null): FollowRows {
  if (!now) return rows;
  const { follower, followed } = rows;
  const pairs = new Map<string, readonly [number, number]>();
  for (let i = 0; i < follower.length; i++) {
    const [a, b] = [now(follower[i]), now(followed[i])];
    if (a >= 0 && b >= 0 && a !== b) pairs.set(`${a} ${b}`, [a, b]);
  }
  const all = [...pairs.values()];
  return {
    follower: Uint32Array.from(all, ([a]) => a),
    followed: Uint32Array.from(all, ([, b]) => b),
  };
}
