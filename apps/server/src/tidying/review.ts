import type { Decision, FoundThing, Suggestion, TidyPage, TidyQuery, TidySort } from '@pebble/contract';
import {
  categoriesOf,
  fold,
  resolve,
  reviewOf,
  SORT_WORDS,
  suggestMerges,
  tallyThings,
  type Resolution,
  type Tallied,
} from '@pebble/core';
import { readDecisions } from '../storage/decisions';
import type { Store } from '../storage/open';
import { readThings } from '../storage/tidyThings';

/** A page of what was found of a sort, the most used first, with how far its review is. */
export async function readTidyPage(
  store: Store,
  { sort, search, show, limit }: TidyQuery & { sort: TidySort },
): Promise<TidyPage> {
  const things = await foundThings(store, sort);
  const wanted = search
    .split('|')
    .map((part) => fold(part))
    .filter((part) => part !== '');
  const fits = ({ label, key, merged, state, categories }: FoundThing): boolean =>
    (show === 'all' || state === show) &&
    (wanted.length === 0 ||
      wanted.some((part) =>
        [label, key, ...merged, ...Object.values(categories)].some((one) => fold(one).includes(part)),
      ));
  const found = things.filter(fits);
  return {
    total: found.length,
    things: found.slice(0, limit),
    review: reviewOf(
      things.map(({ state }) => state),
      SORT_WORDS[sort],
    ),
  };
}

/** Pairs that may be the same; those that were decided on are not proposed again. */
export async function readSuggestions(store: Store, sort: TidySort): Promise<Suggestion[]> {
  const { personalNames, keys } = readThings(store, sort);
  const nameOf = new Map(keys.map((key, i) => [key, personalNames[i]]));
  const things = (await foundThings(store, sort)).filter(({ state }) => state === 'open' || state === 'kept');
  const byKey = new Map(things.map((thing) => [thing.key, thing]));
  const candidates = things.map(({ key, label, messages }) => {
    const personalName = nameOf.get(key);
    return { key, label, messages, ...(personalName ? { personalName } : {}) };
  });
  return suggestMerges(candidates).flatMap(({ a, b, reason, label }) => {
    const [x, y] = [byKey.get(a)!, byKey.get(b)!];
    // Both were looked at and kept apart.
    return x.state === 'kept' && y.state === 'kept' ? [] : [{ a: x, b: y, reason, label }];
  });
}

async function foundThings(store: Store, sort: TidySort): Promise<FoundThing[]> {
  const { occurrences, keys, labels, kinds } = readThings(store, sort);
  const decisions = await readDecisions(store, [sort]);
  const resolution = resolve(decisions);
  const labelOf = new Map(keys.map((key, i) => [key, labels[i]]));
  const parts = partsOf(decisions, resolution, labelOf);
  const categories = [...categoriesOf(decisions)];
  return tallyThings(occurrences, keys.length)
    .map((tallied, i) => ({
      ...thingOf(keys[i], labels[i], tallied, resolution, labelOf, parts),
      kind: resolution.kind(keys[i]) ?? kinds.get(keys[i]) ?? null,
      categories: Object.fromEntries(
        categories.flatMap(([name, values]) => (values.has(keys[i]) ? [[name, values.get(keys[i])!]] : [])),
      ),
    }))
    .sort((a, b) => b.messages - a.messages || (a.key < b.key ? -1 : 1));
}

/** Labels of what was merged into each key. */
function partsOf(
  decisions: readonly Decision[],
  resolution: Resolution,
  labelOf: ReadonlyMap<string, string>,
): Map<string, string[]> {
  const parts = new Map<string, string[]>();
  for (const key of new Set(decisions.map((decision) => decision.key))) {
    if (resolution.state(key) !== 'merged') continue;
    const into = resolution.canonical(key);
    parts.set(into, [...(parts.get(into) ?? []), labelOf.get(key) ?? key]);
  }
  return parts;
}

function thingOf(
  key: string,
  label: string,
  { messages, authors, first, last, example }: Tallied,
  resolution: Resolution,
  labelOf: ReadonlyMap<string, string>,
  parts: ReadonlyMap<string, string[]>,
): Omit<FoundThing, 'kind' | 'categories'> {
  const state = resolution.state(key);
  const into = resolution.canonical(key);
  const moment = (time: number): number | null => (Number.isNaN(time) ? null : time);
  return {
    key,
    label: state === 'merged' ? label : (resolution.label(key) ?? label),
    messages,
    authors,
    first: moment(first),
    last: moment(last),
    example: moment(example),
    state,
    into:
      state === 'merged' ? { key: into, label: resolution.label(into) ?? labelOf.get(into) ?? into } : null,
    merged: parts.get(key) ?? [],
  };
}
