import {
  TidySort,
  type Decision,
  type SharedWeave,
  type TogetherWeave,
  type TwoModeWeave,
} from '@pebble/contract';
import {
  leftNote,
  takenOccurrences,
  THING_WORDS,
  tidyOccurrences,
  weaveShared,
  weaveTogether,
  weaveTwoMode,
  type Woven,
} from '@pebble/core';
import { readNearOccurrences } from '../storage/nearOccurrences';
import type { Store } from '../storage/open';
import type { OccurrenceScope } from '../storage/occurrenceRows';
import { readOccurrences, withThreads } from '../storage/occurrences';
import { readTaken } from '../storage/taken';
import { modeColumn, type CountedWeave } from './namedWeave';
import { ofSort, tidyThings, type TidyAccounts } from './tidied';

/** Things tied by standing together, accounts by sharing things, or accounts tied to the things they use. */
export function weaveThings(
  store: Store,
  weave: TogetherWeave | SharedWeave | TwoModeWeave,
  tidy: TidyAccounts,
  decisions: readonly Decision[],
  progress?: (share: number) => void,
): CountedWeave {
  const scope: OccurrenceScope = weave;
  const isNear = weave.what === 'together' && weave.unit === 'near';
  const found = (isNear ? readNearOccurrences : readOccurrences)(store, scope, weave.things);
  const isTaken = readTaken(store, weave);
  const { rows, left } = isTaken
    ? takenOccurrences(found.occurrences, isTaken)
    : { rows: found.occurrences, left: 0 };
  const sort = TidySort.safeParse(weave.things);
  const { now, named } = tidyThings(
    { ...found, occurrences: rows },
    sort.success ? ofSort(decisions, sort.data) : [],
    weave.things === 'mention' ? tidy : null,
  );
  const occurrences = tidyOccurrences(rows, now, tidy.now);
  const without = new Set(weave.without.map(named.typedKey));
  const isLeftOut = (thing: number): boolean => without.size > 0 && without.has(named.keyOf(thing));
  const account = (id: number): string => tidy.labels.get(id) ?? '';
  const done = (woven: Woven, labelOf: CountedWeave['labelOf']): CountedWeave => ({
    woven: { ...woven, notes: [...leftNote(left), ...woven.notes] },
    labelOf,
    keyOf: named.keyOf,
    emptiedBy:
      occurrences.count === 0 && left > 0
        ? 'No message is left by the choice of messages.'
        : whatEmpties(occurrences.count, weave, woven),
  });
  switch (weave.what) {
    case 'together': {
      const inThreads = weave.unit === 'thread' ? withThreads(store, occurrences) : occurrences;
      return done(weaveTogether(inThreads, weave, isLeftOut, progress), named.labelOf);
    }
    case 'shared':
      return done(weaveShared(occurrences, weave, isLeftOut, progress), account);
    case 'two-mode': {
      const [one] = THING_WORDS[weave.things];
      return {
        ...done(weaveTwoMode(occurrences, weave, isLeftOut), (id, mode) =>
          mode === 0 ? account(id) : named.labelOf(id),
        ),
        ownColumns: (left) => [modeColumn(left, 'account', one)],
      };
    }
  }
}

function whatEmpties(
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
