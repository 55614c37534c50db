import type { StepRequest } from '@pebble/contract';

/** Ties above which one run of the Louvain method takes a second or more. */
const MANY_TIES = 250_000;

/** The step that measures a new network: communities are the best of five runs, of a very large network the best of two. */
export function measuredNext({ network, edges }: { network: string; edges: number }): StepRequest {
  const settings = edges > MANY_TIES ? { runs: 2 } : {};
  return { kind: 'measure-network', parameters: { network, settings } };
}
