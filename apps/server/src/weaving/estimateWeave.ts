import type { Weave, WeaveEstimate } from '@pebble/contract';
import { NOTHING_WOVEN, sizeOf, sketchOf, tooManyPhrase, TooManyTies } from '@pebble/core';
import { decisionsFor } from '../storage/decisions';
import type { Store } from '../storage/open';
import { evidenceOf } from './evidenceOf';
import { isOfNetwork, networkKind } from './kinds';
import { weaveStudy } from './weaveStudy';
import type { StudyWeave } from './kinds/kind';

/** How large a weave would be; nothing is stored. */
export async function estimateWeave(
  store: Store,
  weave: Weave,
  progress?: (share: number) => void,
): Promise<WeaveEstimate> {
  try {
    return await (isOfNetwork(weave)
      ? networkKind(weave).estimate(store, weave, evidenceOf)
      : estimateStudy(store, weave, progress));
  } catch (error) {
    if (!(error instanceof TooManyTies)) throw error;
    const note = tooManyPhrase(error.ties, error.wouldFit);
    return { ...sizeOf(NOTHING_WOVEN, 0, note), emptiedBy: note, tooLarge: true, wouldFit: error.wouldFit };
  }
}

async function estimateStudy(
  store: Store,
  weave: StudyWeave,
  progress?: (share: number) => void,
): Promise<WeaveEstimate> {
  const decisions = await decisionsFor(store, weave);
  const { woven, messages, labels, emptiedBy } = weaveStudy(store, weave, decisions, progress);
  return sizeOf(
    woven,
    messages,
    emptiedBy,
    sketchOf(woven, (node) => labels[node]),
  );
}
