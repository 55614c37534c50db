import type { DraftRequest, RoutineDraft } from '@pebble/contract';
import { leadingTo, routineOf } from '@pebble/core';
import type { Store } from '../storage/open';
import { listSteps } from '../storage/steps';

/** A routine of steps of a study's logbook, or of all that led to a plate; null where none of them can be run again. */
export async function draftRoutine(store: Store, asked: DraftRequest): Promise<RoutineDraft | null> {
  const logbook = (await listSteps(store)).reverse();
  const steps = 'plate' in asked ? leadingTo(logbook, asked.plate) : new Set(asked.steps);
  const draft = routineOf(logbook, { name: asked.name, steps });
  return draft.routine.steps.length > 0 ? draft : null;
}
