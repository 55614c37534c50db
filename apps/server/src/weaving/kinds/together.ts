import type { TogetherWeave } from '@pebble/contract';
import { weaveTogether } from '@pebble/core';
import { withThreads } from '../../storage/occurrences';
import { keptEvidence } from '../evidence/ofTable';
import { readThings } from '../things';
import type { StudyKind } from './kind';

/** Things tied by standing together. */
export const together: StudyKind<TogetherWeave> = {
  count(asked) {
    const { store, weave, progress } = asked;
    const things = readThings(asked, weave.unit === 'near' ? 'in texts' : 'in messages');
    const rows = weave.unit === 'thread' ? withThreads(store, things.occurrences) : things.occurrences;
    return things.done(weaveTogether(rows, weave, things.isLeftOut, progress), things.labelOf);
  },
  evidence: keptEvidence,
};
