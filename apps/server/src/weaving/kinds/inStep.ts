import type { InStepWeave } from '@pebble/contract';
import { leftNote, takenOccurrences, tidyOccurrences, weaveInStep } from '@pebble/core';
import { readSame } from '../../storage/occurrences';
import { readTaken } from '../../storage/taken';
import { tableEvidence } from '../evidence/ofTable';
import type { StudyKind } from './kind';

/** Accounts that post the same in step: behind a tie stand those messages that came within the time. */
export const inStep: StudyKind<InStepWeave> = {
  count({ store, weave, tidy }) {
    const isTaken = readTaken(store, weave);
    const same = readSame(store, weave, weave.same).occurrences;
    const { rows, left } = isTaken ? takenOccurrences(same, isTaken) : { rows: same, left: 0 };
    const occurrences = tidyOccurrences(rows, null, tidy.now);
    const woven = weaveInStep(occurrences, weave);
    const empty =
      left > 0
        ? 'No message is left by the choice of messages.'
        : 'No message of this period has one to compare.';
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
  },
  evidence: (store, network, { seconds }) => Promise.resolve(tableEvidence(store, network, seconds * 1000)),
};
