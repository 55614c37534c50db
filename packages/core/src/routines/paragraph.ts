import type { Routine, RoutineAnswers, StepKind } from '@pebble/contract';
import { joinWith } from '../words/sentence';
import { boundStep } from './bind';
import { madeIn } from './check';
import { routineTrait, type RoutineTrait } from './traits';

/** What a routine will do with these answers, in one sentence; of one whose answers do not fit, what its steps are. */
export function routineParagraph(routine: Routine, answers: RoutineAnswers): string {
  const made = madeIn(routine);
  const does = routine.steps.map((step) => {
    const bound = boundStep(routine, step, answers, made);
    const trait = routineTrait(step.kind) as Exclude<RoutineTrait<StepKind>, { why: string }>;
    return 'request' in bound && 'does' in trait
      ? trait.does(bound.request.parameters as never)
      : `do “${step.name}”`;
  });
  return `It will ${joinWith('and', does)}.`;
}
