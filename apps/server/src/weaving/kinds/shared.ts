import type { SharedWeave } from '@pebble/contract';
import { weaveShared } from '@pebble/core';
import { keptEvidence } from '../evidence/ofTable';
import { readThings } from '../things';
import type { StudyKind } from './kind';

/** Accounts tied by the things that they share. */
export const shared: StudyKind<SharedWeave> = {
  count(asked) {
    const { occurrences, isLeftOut, account, done } = readThings(asked);
    return done(weaveShared(occurrences, asked.weave, isLeftOut, asked.progress), account);
  },
  evidence: keptEvidence,
};
