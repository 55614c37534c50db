import { STEP_TRAITS, type Step } from '@pebble/contract';
import { numbersOf, type MapNetwork } from '@pebble/core';
import { doneSteps } from '../../shared/done-steps';

type Edges = MapNetwork['edges'];

/** How many steps are done that can have changed what a network holds: its columns, its groups, their titles. */
export function changesDone(steps: readonly Step[], network: string): number {
  return doneSteps(
    steps,
    ({ kind, parameters, result }) =>
      STEP_TRAITS[kind].changes.includes('networks') && (isOf(parameters, network) || isOf(result, network)),
  );
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
