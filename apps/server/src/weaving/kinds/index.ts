import type { Network, Weave } from '@pebble/contract';
import type { Store } from '../../storage/open';
import type { Evidence, EvidenceOf } from '../evidence/evidence';
import { accounts } from './accounts';
import { alike } from './alike';
import { follows } from './follows';
import { groups } from './groups';
import { inStep } from './inStep';
import type { NetworkKind, NetworkWeave, StudyKind, StudyWeave } from './kind';
import { projection } from './projection';
import { shared } from './shared';
import { together } from './together';
import { twoMode } from './twoMode';

/** How weaves are made from what a study holds, by the name of their kind. */
const OF_STUDY: { readonly [K in StudyWeave['what']]: StudyKind<Extract<StudyWeave, { what: K }>> } = {
  accounts,
  together,
  shared,
  'two-mode': twoMode,
  follows,
  'in-step': inStep,
  alike,
};

/** How weaves are made from another network, by the name of their kind. */
const OF_NETWORK: { readonly [K in NetworkWeave['what']]: NetworkKind<Extract<NetworkWeave, { what: K }>> } =
  {
    groups,
    projection,
  };

export function isOfNetwork(weave: Weave): weave is NetworkWeave {
  return 'network' in weave;
}

/** The kind of a weave; it is to be asked of that weave alone. */
export function studyKind({ what }: StudyWeave): StudyKind<StudyWeave> {
  return OF_STUDY[what];
}

/** The kind of a weave; it is to be asked of that weave alone. */
export function networkKind({ what }: NetworkWeave): NetworkKind<NetworkWeave> {
  return OF_NETWORK[what];
}

/** What stands behind the network of a weave; null where no messages do. @param within the same for another network */
export function kindEvidence(
  store: Store,
  network: Network,
  weave: Weave,
  within: EvidenceOf,
): Promise<Evidence | null> {
  return isOfNetwork(weave)
    ? networkKind(weave).evidence(store, network, weave, within)
    : studyKind(weave).evidence(store, network, weave, within);
}
