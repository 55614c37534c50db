import type { Decision } from '@pebble/contract';
import { finishWeave, messagesBehind, type EvidenceRows, type Woven } from '@pebble/core';
import type { Store } from '../storage/open';
import { studyKind } from './kinds';
import type { StudyAsked, StudyWeave } from './kinds/kind';
import type { NamedWeave } from './namedWeave';
import { tidyAccounts } from './tidied';

/** Weaves a network of a study; nothing is stored. Throws TooManyTies, and what `progress` throws. */
export function weaveStudy(
  store: Store,
  weave: StudyWeave,
  decisions: readonly Decision[],
  progress?: (share: number) => void,
): NamedWeave {
  const asked: StudyAsked<StudyWeave> = {
    store,
    weave,
    decisions,
    tidy: tidyAccounts(store, decisions),
    progress,
  };
  const counted = studyKind(weave).count(asked);
  const woven = withOneEvidence(finishWeave(counted.woven, { isolates: false, ...weave }));
  return {
    woven,
    messages: messagesBehind(woven),
    labels: Array.from(woven.id, (id, v) => counted.labelOf(id, woven.mode[v])),
    keyOf: counted.keyOf,
    own: counted.ownColumns?.(woven) ?? [],
    emptiedBy:
      counted.woven.source.length === 0 ? counted.emptiedBy : 'No tie is left by what is done afterwards.',
  };
}

/** Rows of evidence are made once, whoever asks for them. */
function withOneEvidence(woven: Woven): Woven {
  const { evidence } = woven;
  let made: EvidenceRows | null = null;
  return evidence ? { ...woven, evidence: () => (made ??= evidence()) } : woven;
}
