import { STEP_TRAITS, type Step } from '@pebble/contract';

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

/** Whether something speaks of a network, or of one of its slices. */
function isOf(said: unknown, network: string): boolean {
  const { network: own, slices } = (said ?? {}) as { network?: unknown; slices?: unknown };
  return own === network || (Array.isArray(slices) && slices.some((slice) => isOf(slice, network)));
}
