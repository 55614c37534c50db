import type { FollowWeave } from '@pebble/contract';
import type { Woven } from '../common/woven';

/** Who follows whom: follower[i] follows followed[i], accounts by their number in the study; each pair once. */
export interface FollowRows {
  readonly follower: Uint32Array;
  readonly followed: Uint32Array;
}

/** Accounts tied by following, or followers tied to lists (mode 1); followers of too few of the listed accounts are left out. */
export function weaveFollows(
  { follower, followed }: FollowRows,
  { listsAtLeast, sorts }: FollowWeave,
): Woven {
  const listsOf = new Map<number, number>();
  for (const account of follower) listsOf.set(account, (listsOf.get(account) ?? 0) + 1);
  const kept = Uint32Array.from(follower.keys()).filter((i) => listsOf.get(follower[i])! >= listsAtLeast);
  const lists = sorts === 'two' ? ascending(followed) : new Uint32Array(0);
  const accounts = ascending([...Array.from(kept, (i) => follower[i]), ...(sorts === 'two' ? [] : followed)]);
  const place = new Map(Array.from(accounts, (account, i) => [account, i]));
  const placeOfList =
    sorts === 'two' ? new Map(Array.from(lists, (account, i) => [account, accounts.length + i])) : place;
  const order = kept.sort((a, b) => follower[a] - follower[b] || followed[a] - followed[b]);
  return {
    directed: true,
    id: Uint32Array.from([...accounts, ...lists]),
    mode: new Uint8Array(accounts.length + lists.length).fill(1, accounts.length),
    uses: new Float64Array(accounts.length + lists.length),
    source: Uint32Array.from(order, (i) => place.get(follower[i])!),
    target: Uint32Array.from(order, (i) => placeOfList.get(followed[i])!),
    weight: new Float64Array(order.length).fill(1),
    columns: {},
    evidence: null,
    droppedBelowThreshold: follower.length - order.length,
    notes: [],
  };
}

function ascending(accounts: Iterable<number>): Uint32Array {
  return Uint32Array.from(new Set(accounts)).sort();
}

/** For each node of such a network: the listed accounts that it follows, joined; for a listed account itself "listed". */
export function audiences({ id, source, target }: Woven, nameOf: (account: number) => string): string[] {
  const lists: string[][] = Array.from(id, () => []);
  const isListed = new Set(target);
  for (let e = 0; e < source.length; e++) lists[source[e]].push(nameOf(id[target[e]]));
  return lists.map((names, v) => (isListed.has(v) ? 'listed account' : names.sort().join(' + ')));
}
