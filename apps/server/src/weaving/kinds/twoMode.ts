import type { TwoModeWeave } from '@pebble/contract';
import { THING_WORDS, weaveTwoMode } from '@pebble/core';
import { keptEvidence } from '../evidence/ofTable';
import { modeColumn } from '../namedWeave';
import { readThings } from '../things';
import type { StudyKind } from './kind';

/** Accounts tied to the things that they use. */
export const twoMode: StudyKind<TwoModeWeave> = {
  count(asked) {
    const { occurrences, isLeftOut, account, labelOf, done } = readThings(asked);
    const [one] = THING_WORDS[asked.weave.things];
    return {
      ...done(weaveTwoMode(occurrences, asked.weave, isLeftOut), (id, mode) =>
        mode === 0 ? account(id) : labelOf(id),
      ),
      ownColumns: (left) => [modeColumn(left, 'account', one)],
    };
  },
  evidence: keptEvidence,
};
