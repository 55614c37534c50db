import {
  TidySort,
  type AccountWeave,
  type Decision,
  type FollowWeave,
  type InStepWeave,
  type SharedWeave,
  type TogetherWeave,
  type TwoModeWeave,
  type Weave,
} from '@pebble/contract';
import {
  audiences,
  finishWeave,
  THING_WORDS,
  tidyAddresses,
  tidyFollows,
  tidyPlacings,
  weaveAccounts,
  weaveFollows,
  weaveInStep,
  weaveShared,
  weaveTogether,
  weaveTwoMode,
  whatEmptiesAccounts,
  type TableColumns,
  type Woven,
} from '@pebble/core';
import { readAddresses } from '../db/addresses';
import { ofSort, tidyAccounts, tidyThings, type TidyAccounts } from './tidied';
import type { Store } from '../db/open';
import {
  accountLabels,
  accountNames,
  readFollows,
  readPlacings,
  readSame,
  withThreads,
  type PlacingScope,
} from '../db/placings';

/** A woven network with what its nodes are called. */
export interface NamedWeave {
  readonly woven: Woven;
  /** What each node is called, and further columns of the nodes. */
  readonly labels: readonly string[];
  readonly own: TableColumns;
  /** Which part of the sentence empties it, where it is empty. */
  readonly emptiedBy: string;
}

/** The weaves that are made from what a study holds; groups of a network are made from that network. */
export type StudyWeave = Exclude<Weave, { what: 'groups' }>;

/** Weaves a network of a study; nothing is stored. Throws TooManyTies. */
export function weaveStudy(
  store: Store,
  study: string,
  weave: StudyWeave,
  decisions: readonly Decision[],
): NamedWeave {
  const made = withNames(store, study, weave, weaveCounted(store, study, weave, decisions));
  const woven = finishWeave(made.woven, { isolates: false, ...weave });
  if (woven === made.woven) return made;
  // Nodes may have gone: what is said of them goes with them.
  const place = new Map(Array.from(made.woven.id, (id, v) => [`${made.woven.mode[v]} ${id}`, v]));
  const before = Array.from(woven.id, (id, v) => place.get(`${woven.mode[v]} ${id}`)!);
  return {
    ...made,
    woven,
    labels: before.map((v) => made.labels[v]),
    own: Object.fromEntries(
      Object.entries(made.own).map(([name, values]) => [name, before.map((v) => String(values[v]))]),
    ),
    emptiedBy: made.woven.source.length === 0 ? made.emptiedBy : 'No tie is left by what is done afterwards.',
  };
}

/** Accounts have a name beside their handle. */
function withNames(store: Store, study: string, weave: StudyWeave, made: NamedWeave): NamedWeave {
  if (weave.what === 'together') return made;
  const names = accountNames(store, study);
  const handles = accountLabels(store, study);
  const { id, mode } = made.woven;
  // One that was given another label is known by that alone.
  const nameOf = (account: number, v: number): string =>
    mode[v] === 0 && handles.get(account) === made.labels[v] ? (names.get(account) ?? '') : '';
  return { ...made, own: { name: Array.from(id, nameOf), ...made.own } };
}

function weaveCounted(
  store: Store,
  study: string,
  weave: StudyWeave,
  decisions: readonly Decision[],
): NamedWeave {
  const tidy = tidyAccounts(store, study, decisions);
  switch (weave.what) {
    case 'accounts':
      return accounts(store, study, weave, tidy);
    case 'together':
    case 'shared':
    case 'two-mode':
      return things(store, study, weave, tidy, decisions);
    case 'follows':
      return follows(store, study, weave, tidy);
    case 'in-step':
      return inStep(store, study, weave, tidy);
  }
}

function accounts(store: Store, study: string, weave: AccountWeave, tidy: TidyAccounts): NamedWeave {
  const rows = tidyAddresses(readAddresses(store, study), tidy.now);
  const woven = weaveAccounts(rows, weave);
  return {
    woven,
    labels: labelled(tidy.labels, woven.id),
    own: {},
    emptiedBy: whatEmptiesAccounts(rows, weave, woven.droppedBelowThreshold),
  };
}

function things(
  store: Store,
  study: string,
  weave: TogetherWeave | SharedWeave | TwoModeWeave,
  tidy: TidyAccounts,
  decisions: readonly Decision[],
): NamedWeave {
  const scope: PlacingScope = { study, ...weave };
  const found = readPlacings(store, scope, weave.things);
  const sort = TidySort.safeParse(weave.things);
  const { now, named } = tidyThings(
    found,
    sort.success ? ofSort(decisions, sort.data) : [],
    weave.things === 'mention' ? tidy : null,
  );
  const placings = tidyPlacings(found.placings, now, tidy.now);
  const without = new Set(weave.without.map(named.typedKey));
  const isLeftOut = (thing: number): boolean => without.size > 0 && without.has(named.keyOf(thing));
  const emptiedBy = (woven: Woven): string => whatEmptiesThings(placings.count, weave, woven);
  switch (weave.what) {
    case 'together': {
      const inThreads = weave.unit === 'thread' ? withThreads(store, study, placings) : placings;
      const woven = weaveTogether(inThreads, weave, isLeftOut);
      return { woven, labels: Array.from(woven.id, named.labelOf), own: {}, emptiedBy: emptiedBy(woven) };
    }
    case 'shared': {
      const woven = weaveShared(placings, weave, isLeftOut);
      return {
        woven,
        labels: labelled(tidy.labels, woven.id),
        own: {},
        emptiedBy: emptiedBy(woven),
      };
    }
    case 'two-mode': {
      const woven = weaveTwoMode(placings, weave, isLeftOut);
      const [one] = THING_WORDS[weave.things];
      return {
        woven,
        labels: Array.from(woven.id, (id, v) =>
          woven.mode[v] === 0 ? (tidy.labels.get(id) ?? '') : named.labelOf(id),
        ),
        own: { mode: Array.from(woven.mode, (mode) => (mode === 0 ? 'account' : one)) },
        emptiedBy: emptiedBy(woven),
      };
    }
  }
}

function follows(store: Store, study: string, weave: FollowWeave, tidy: TidyAccounts): NamedWeave {
  const woven = weaveFollows(tidyFollows(readFollows(store, study), tidy.now), weave);
  return {
    woven,
    labels: labelled(tidy.labels, woven.id),
    own: { follows: audiences(woven, (account) => tidy.labels.get(account) ?? '') },
    emptiedBy:
      woven.droppedBelowThreshold > 0
        ? `Nobody follows ${weave.listsAtLeast} of the listed accounts. Ask for fewer.`
        : 'There are no follower lists in this study yet.',
  };
}

function inStep(store: Store, study: string, weave: InStepWeave, tidy: TidyAccounts): NamedWeave {
  const same = readSame(store, { study, ...weave }, weave.same);
  const placings = tidyPlacings(same, null, tidy.now);
  const woven = weaveInStep(placings, weave);
  return {
    woven,
    labels: labelled(tidy.labels, woven.id),
    own: {},
    emptiedBy:
      placings.count === 0
        ? 'No message of this period has one to compare.'
        : woven.droppedBelowThreshold > 0
          ? `No two accounts did so with ${weave.atLeast} different ones. Ask for fewer.`
          : `No two accounts posted the same within ${weave.seconds} seconds. Allow more time.`,
  };
}

function whatEmptiesThings(
  rows: number,
  { things, from, until, atLeast, usedAtLeast }: TogetherWeave | SharedWeave | TwoModeWeave,
  woven: Woven,
): string {
  const [, many] = THING_WORDS[things];
  if (rows === 0)
    return from === null && until === null
      ? `The messages of this study hold no ${many}.`
      : `No message of this period holds ${many}.`;
  if (woven.droppedBelowThreshold > 0) return `No tie has a strength of ${atLeast}. Ask for less.`;
  if (usedAtLeast > 1)
    return `None of the ${many} that stand in ${usedAtLeast} messages or more meet. Ask for fewer.`;
  return `No two of the ${many} that are kept meet.`;
}

function labelled(labels: ReadonlyMap<number, string>, id: Uint32Array): string[] {
  return Array.from(id, (one) => labels.get(one) ?? '');
}
