import type { AlikeWeave } from '@pebble/contract';
import { leftNote, takenOccurrences, tidyOccurrences, weaveAlike } from '@pebble/core';
import { messageLabels } from '../../storage/messageTexts';
import { readOccurrences } from '../../storage/occurrences';
import { readTaken } from '../../storage/taken';
import { keptEvidence } from '../evidence/ofTable';
import { ofSort, tidyThings } from '../tidied';
import type { StudyKind } from './kind';

/** Messages or accounts whose wording is alike. */
export const alike: StudyKind<AlikeWeave> = {
  count({ store, weave, tidy, decisions, progress }) {
    const isTaken = readTaken(store, weave);
    const found = readOccurrences(store, weave, 'word');
    const { rows, left } = isTaken
      ? takenOccurrences(found.occurrences, isTaken)
      : { rows: found.occurrences, left: 0 };
    const { now } = tidyThings({ ...found, occurrences: rows }, ofSort(decisions, 'word'), null);
    const occurrences = tidyOccurrences(rows, now, tidy.now);
    const woven = weaveAlike(occurrences, weave, progress);
    const empty =
      left > 0
        ? 'No message is left by the choice of messages.'
        : 'The messages of this period hold no words to compare.';
    return {
      woven: { ...woven, notes: [...leftNote(left), ...woven.notes] },
      labelOf: weave.nodes === 'message' ? messageLabels(store) : (account) => tidy.labels.get(account) ?? '',
      keyOf: null,
      emptiedBy:
        occurrences.count === 0
          ? empty
          : `No two ${weave.nodes}s are alike by ${Math.round(100 * weave.likeness)} % with ${weave.atLeast} shared words. Ask for less.`,
    };
  },
  evidence: keptEvidence,
};
