import type { NewNetwork } from '../operations/weave/storeNetwork';

/** What a recipe gives. */
export interface WeaveResult extends Omit<NewNetwork, 'name' | 'weave' | 'map' | 'sentence'> {
  readonly dropped: number;
  readonly notes: readonly string[];
  /** What its groups were made from, in words. */
  readonly from: string;
}
