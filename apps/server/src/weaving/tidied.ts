import type { Decision, TidySort } from '@pebble/contract';
import { handleKey, tidyNumbers, type Now } from '@pebble/core';
import { accountLabels, type NamedOccurrences } from '../storage/occurrenceRows';
import type { Store } from '../storage/open';

/** What accounts are after tidying. */
export interface TidyAccounts {
  /** What an account is now; null where nothing was decided of accounts. */
  readonly now: Now | null;
  /** What each account is called now. */
  readonly labels: ReadonlyMap<number, string>;
  /** All accounts that one account stands for. */
  membersOf(account: number): number[];
}

/** Applies the decisions about accounts. */
export function tidyAccounts(store: Store, decisions: readonly Decision[]): TidyAccounts {
  const own = ofSort(decisions, 'account');
  if (own.length === 0) return asTheyAre(store);
  const labels = accountLabels(store);
  const ids = [...labels.keys()];
  const tidy = tidyNumbers(
    ids.map((id) => handleKey(labels.get(id)!)),
    own,
  );
  if (!tidy) return { now: null, labels, membersOf: (account) => [account] };
  const place = new Map(ids.map((id, i) => [id, i]));
  const now: Now = (account) => {
    const at = tidy.to[place.get(account)!];
    return at < 0 ? -1 : ids[at];
  };
  const members = new Map<number, number[]>();
  for (const id of ids) {
    const at = now(id);
    if (at >= 0) members.set(at, [...(members.get(at) ?? []), id]);
  }
  const given = new Map([...tidy.label].map(([i, label]) => [ids[i], label]));
  return {
    now,
    labels: new Map(ids.map((id) => [id, given.get(id) ?? labels.get(id)!])),
    membersOf: (account) => members.get(account) ?? [account],
  };
}

/** Accounts of which nothing was decided; what they are called is read when it is asked for. */
function asTheyAre(store: Store): TidyAccounts {
  let labels: ReadonlyMap<number, string> | null = null;
  return {
    now: null,
    get labels() {
      return (labels ??= accountLabels(store));
    },
    membersOf: (account) => [account],
  };
}

/** Applies the decisions about things that stand in messages; gives what each is now, and what it is called. */
export function tidyThings(
  { occurrences, labelOf, keyOf, typedKey }: NamedOccurrences,
  decisions: readonly Decision[],
  accounts: TidyAccounts | null,
): { readonly now: Now | null; readonly named: Omit<NamedOccurrences, 'occurrences'> } {
  if (accounts) {
    const label = (thing: number): string => accounts.labels.get(thing) ?? labelOf(thing);
    return { now: accounts.now, named: { labelOf: label, keyOf, typedKey } };
  }
  const things = [...new Set(Array.from(occurrences.thing))];
  const tidy = tidyNumbers(things.map(keyOf), decisions);
  if (!tidy) return { now: null, named: { labelOf, keyOf, typedKey } };
  const place = new Map(things.map((thing, i) => [thing, i]));
  const given = new Map([...tidy.label].map(([i, label]) => [things[i], label]));
  return {
    now: (thing) => {
      const at = tidy.to[place.get(thing)!];
      return at < 0 ? -1 : things[at];
    },
    named: { labelOf: (thing) => given.get(thing) ?? labelOf(thing), keyOf, typedKey },
  };
}

export function ofSort(decisions: readonly Decision[], sort: TidySort): Decision[] {
  return decisions.filter((decision) => decision.sort === sort);
}
