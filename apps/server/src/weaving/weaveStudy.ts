import type {
  AccountWeave,
  FollowWeave,
  InStepWeave,
  SharedWeave,
  TogetherWeave,
  TwoModeWeave,
  Weave,
} from '@pebble/contract';
import {
  audiences,
  THING_WORDS,
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
import type { Store } from '../db/open';
import {
  accountLabels,
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
export function weaveStudy(store: Store, study: string, weave: StudyWeave): NamedWeave {
  switch (weave.what) {
    case 'accounts':
      return accounts(store, study, weave);
    case 'together':
    case 'shared':
    case 'two-mode':
      return things(store, study, weave);
    case 'follows':
      return follows(store, study, weave);
    case 'in-step':
      return inStep(store, study, weave);
  }
}

function accounts(store: Store, study: string, weave: AccountWeave): NamedWeave {
  const rows = readAddresses(store, study);
  const woven = weaveAccounts(rows, weave);
  return {
    woven,
    labels: labelled(accountLabels(store, study), woven.id),
    own: {},
    emptiedBy: whatEmptiesAccounts(rows, weave, woven.droppedBelowThreshold),
  };
}

function things(store: Store, study: string, weave: TogetherWeave | SharedWeave | TwoModeWeave): NamedWeave {
  const scope: PlacingScope = { study, ...weave };
  const named = readPlacings(store, scope, weave.things);
  const without = new Set(weave.without.map(named.typedKey));
  const isLeftOut = (thing: number): boolean => without.size > 0 && without.has(named.keyOf(thing));
  const emptiedBy = (woven: Woven): string => whatEmptiesThings(named.placings.count, weave, woven);
  switch (weave.what) {
    case 'together': {
      const placings = weave.unit === 'thread' ? withThreads(store, study, named.placings) : named.placings;
      const woven = weaveTogether(placings, weave, isLeftOut);
      return { woven, labels: Array.from(woven.id, named.labelOf), own: {}, emptiedBy: emptiedBy(woven) };
    }
    case 'shared': {
      const woven = weaveShared(named.placings, weave, isLeftOut);
      return {
        woven,
        labels: labelled(accountLabels(store, study), woven.id),
        own: {},
        emptiedBy: emptiedBy(woven),
      };
    }
    case 'two-mode': {
      const woven = weaveTwoMode(named.placings, weave, isLeftOut);
      const handles = accountLabels(store, study);
      const [one] = THING_WORDS[weave.things];
      return {
        woven,
        labels: Array.from(woven.id, (id, v) =>
          woven.mode[v] === 0 ? (handles.get(id) ?? '') : named.labelOf(id),
        ),
        own: { mode: Array.from(woven.mode, (mode) => (mode === 0 ? 'account' : one)) },
        emptiedBy: emptiedBy(woven),
      };
    }
  }
}

function follows(store: Store, study: string, weave: FollowWeave): NamedWeave {
  const woven = weaveFollows(readFollows(store, study), weave);
  const handles = accountLabels(store, study);
  return {
    woven,
    labels: labelled(handles, woven.id),
    own: { follows: audiences(woven, (account) => handles.get(account) ?? '') },
    emptiedBy:
      woven.droppedBelowThreshold > 0
        ? `Nobody follows ${weave.listsAtLeast} of the listed accounts. Ask for fewer.`
        : 'There are no follower lists in this study yet.',
  };
}

function inStep(store: Store, study: string, weave: InStepWeave): NamedWeave {
  const placings = readSame(store, { study, ...weave }, weave.same);
  const woven = weaveInStep(placings, weave);
  return {
    woven,
    labels: labelled(accountLabels(store, study), woven.id),
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
