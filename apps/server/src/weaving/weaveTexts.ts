import type { AlikeWeave, Decision, InStepWeave } from '@pebble/contract';
import { leftNote, takenOccurrences, tidyOccurrences, weaveAlike, weaveInStep } from '@pebble/core';
import type { Store } from '../storage/open';
import { readOccurrences, readSame } from '../storage/occurrences';
import { messageLabels } from '../storage/messageTexts';
import { readTaken } from '../storage/taken';
import type { CountedWeave } from './namedWeave';
import { ofSort, tidyThings, type TidyAccounts } from './tidied';

/** Accounts that post the same in step, and messages or accounts whose wording is alike. */
export function weaveTexts(
  store: Store,
  weave: InStepWeave | AlikeWeave,
  tidy: TidyAccounts,
  decisions: readonly Decision[],
  progress?: (share: number) => void,
): CountedWeave {
  const isTaken = readTaken(store, weave);
  return weave.what === 'in-step'
    ? inStep(store, weave, tidy, isTaken)
    : alike(store, weave, tidy, decisions, isTaken, progress);
}

type IsTaken = ReturnType<typeof readTaken>;
const NONE_LEFT = 'No message is left by the choice of messages.';

function inStep(store: Store, weave: InStepWeave, tidy: TidyAccounts, isTaken: IsTaken): CountedWeave {
  const same = readSame(store, weave, weave.same);
  const { rows, left } = isTaken ? takenOccurrences(same, isTaken) : { rows: same, left: 0 };
  const occurrences = tidyOccurrences(rows, null, tidy.now);
  const woven = weaveInStep(occurrences, weave);
  const empty = left > 0 ? NONE_LEFT : 'No message of this period has one to compare.';
  return {
    woven: { ...woven, notes: [...leftNote(left), ...woven.notes] },
    labelOf: (account) => tidy.labels.get(account) ?? '',
    keyOf: null,
    emptiedBy:
      occurrences.count === 0
        ? empty
        : woven.droppedBelowThreshold > 0
          ? `No two accounts did so with ${weave.atLeast} different ones. Ask for fewer.`
          : `No two accounts posted the same within ${weave.seconds} seconds. Allow more time.`,
  };
}

function alike(
  store: Store,
  weave: AlikeWeave,
  tidy: TidyAccounts,
  decisions: readonly Decision[],
  isTaken: IsTaken,
  progress?: (share: number) => void,
): CountedWeave {
  const found = readOccurrences(store, weave, 'word');
  const { rows, left } = isTaken
    ? takenOccurrences(found.occurrences, isTaken)
    : { rows: found.occurrences, left: 0 };
  const { now } = tidyThings({ ...found, occurrences: rows }, ofSort(decisions, 'word'), null);
  const occurrences = tidyOccurrences(rows, now, tidy.now);
  const woven = weaveAlike(occurrences, weave, progress);
  const empty = left > 0 ? NONE_LEFT : 'The messages of this period hold no words to compare.';
  const label =
    weave.nodes === 'message'
      ? messageLabels(store)
      : (account: number): string => tidy.labels.get(account) ?? '';
  return {
    woven: { ...woven, notes: [...leftNote(left), ...woven.notes] },
    labelOf: label,
    keyOf: null,
    emptiedBy:
      occurrences.count === 0
        ? empty
        : `No two ${weave.nodes}s are alike by ${Math.round(100 * weave.likeness)} % with ${weave.atLeast} shared words. Ask for less.`,
  };
}
