import type { FollowWeave } from '@pebble/contract';
import type { Woven } from './woven';

/** Who follows whom: follower[i] follows followed[i], accounts by their number in the study; each pair once. */
export interface FollowRows {
  readonly follower: Uint32Array;
  readonly followed: Uint32Array;
}

/** Accounts tied by following; followers of too few of the listed accounts are left out. */
export function weaveFollows({ follower, followed }: FollowRows, { listsAtLeast }: FollowWeave): Woven {
  const lists = new Map<number, number>();
  for (const account of follower) lists.set(account, (lists.get(account) ?? 0) + 1);
  const kept = Uint32Array.from(follower.keys()).filter((i) => lists.get(follower[i])! >= listsAtLeast);
  const accounts = [...new Set([...Array.from(kept, (i) => follower[i]), ...followed])].sort((a, b) => a - b);
  const place = new Map(accounts.map((account, i) => [account, i]));
  const order = kept.sort((a, b) => follower[a] - follower[b] || followed[a] - followed[b]);
  return {
    directed: true,
    id: Uint32Array.from(accounts),
    mode: new Uint8Array(accounts.length),
    uses: new Float64Array(accounts.length),
    source: Uint32Array.from(order, (i) => place.get(follower[i])!),
    target: Uint32Array.from(order, (i) => place.get(followed[i])!),
    weight: new Float64Array(order.length).fill(1),
    columns: {},
    evidence: null,
    messages: 0,
    droppedBelowThreshold: follower.length - order.length,
    notes: [],
  };
}

/** For each node of such a network: the listed accounts that it follows, joined; for a listed account itself "listed". */
export function audiences({ id, source, target }: Woven, nameOf: (account: number) => string): string[] {
  const lists: string[][] = Array.from(id, () => []);
  const isListed = new Set(target);
  for (let e = 0; e < source.length; e++) lists[source[e]].push(nameOf(id[target[e]]));
  return lists.map((names, v) => (isListed.has(v) ? 'listed account' : names.sort().join(' + ')));
}
