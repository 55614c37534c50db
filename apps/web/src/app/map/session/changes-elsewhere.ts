import { STEP_TRAITS, type Step } from '@pebble/contract';
import { numbersOf, type MapNetwork } from '@pebble/core';

type Edges = MapNetwork['edges'];

/** The newest step that can have changed what a network holds: its columns, its groups, their titles; 0 where there is none. */
export function newestChange(steps: readonly Step[], network: string): number {
  const found = steps.find(
    ({ kind, state, parameters, result }) =>
      state === 'done' &&
      STEP_TRAITS[kind].changes.includes('networks') &&
      (isOf(parameters, network) || isOf(result, network)),
  );
  return found?.id ?? 0;
}

/** Ties that were read again, with the ends that are known where these are the same, so that what was drawn for them still holds. */
export function withSameEnds(known: Edges, edges: Edges): Edges {
  const { source, target } = known;
  return isSameRow(known, edges, 'source') && isSameRow(known, edges, 'target')
    ? { ...edges, source, target }
    : edges;
}

function isSameRow(known: Edges, edges: Edges, name: string): boolean {
  const [a, b] = [numbersOf(known, name), numbersOf(edges, name)];
  return a.length === b.length && a.every((value, i) => value === b[i]);
}

/** Whether something speaks of a network, or of one of its slices. */
function isOf(said: unknown, network: string): boolean {
  const { network: own, slices } = (said ?? {}) as { network?: unknown; slices?: unknown };
  return own === network || (Array.isArray(slices) && slices.some((slice) => isOf(slice, network)));
}
