import type { Decision, Network, Weave, WeaveEstimate } from '@pebble/contract';
import type { Store } from '../../storage/open';
import type { Evidence, EvidenceOf } from '../evidence/evidence';
import type { CountedWeave } from '../namedWeave';
import type { TidyAccounts } from '../tidied';
import type { WeaveResult } from '../weaveResult';

/** A weave that is made from another network. */
export type NetworkWeave = Extract<Weave, { network: string }>;
/** A weave that is made from what a study holds. */
export type StudyWeave = Exclude<Weave, { network: string }>;

/** What a weave is made of, and how it is to be made. */
export interface StudyAsked<W extends StudyWeave> {
  readonly store: Store;
  readonly weave: W;
  /** Accounts after tidying. */
  readonly tidy: TidyAccounts;
  readonly decisions: readonly Decision[];
  readonly progress?: ((share: number) => void) | undefined;
}

interface WithEvidence<W extends Weave> {
  /** What stands behind its network; null where no messages do. @param within the same for another network */
  evidence(store: Store, network: Network, weave: W, within: EvidenceOf): Promise<Evidence | null>;
}

/** How a kind of weave is made from what a study holds. Throws TooManyTies. */
export interface StudyKind<W extends StudyWeave> extends WithEvidence<W> {
  count(asked: StudyAsked<W>): CountedWeave;
}

/** How a kind of weave is made from another network. */
export interface NetworkKind<W extends NetworkWeave> extends WithEvidence<W> {
  /** Throws StepRefused where it cannot be made. @param within what stands behind the other network */
  weave(store: Store, weave: W, within: EvidenceOf): Promise<WeaveResult>;
  /** How large it would be. Throws TooManyTies. */
  estimate(store: Store, weave: W, within: EvidenceOf): Promise<WeaveEstimate>;
}
