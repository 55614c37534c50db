import { throughInner, type EvidenceOf } from './evidence/evidence';
import { groupEvidence } from './evidence/ofGroups';
import { kindEvidence } from './kinds';

/** What stands behind a network; null for one without messages: of a file, or of follower lists. */
export const evidenceOf: EvidenceOf = async (store, network) => {
  const { weave, changed } = network;
  if (weave === null) return null;
  if (!changed) return kindEvidence(store, network, weave, evidenceOf);
  // What stands behind nodes stands behind those that they became.
  return throughInner(store, changed.of, evidenceOf, (inner, evidence) =>
    groupEvidence(store, network, inner, evidence),
  );
};
