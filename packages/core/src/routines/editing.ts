import type { Routine } from '@pebble/contract';
import { referencesIn, referencesTo } from './references';

/** The same routine without a step and all that rest on it, and without questions that nobody asks any more. */
export function withoutStep(routine: Routine, name: string): Routine {
  const gone = new Set([name]);
  const steps = routine.steps.filter((step) => {
    if (referencesTo(step).some((one) => gone.has(one))) gone.add(step.name);
    return !gone.has(step.name);
  });
  const asked = new Set(
    steps.flatMap(({ parameters }) =>
      referencesIn(parameters).flatMap(({ reference }) => ('ask' in reference ? [reference.ask] : [])),
    ),
  );
  return {
    ...routine,
    steps,
    questions: routine.questions.filter((question) => asked.has(question.name)),
    outputs: routine.outputs.filter(({ of }) => !gone.has(of)),
  };
}

/** The same routine with a step one place earlier or later; as it is at either end. */
export function withStepMoved(routine: Routine, name: string, by: -1 | 1): Routine {
  const steps = [...routine.steps];
  const from = steps.findIndex((step) => step.name === name);
  const to = from + by;
  if (from < 0 || to < 0 || to >= steps.length) return routine;
  [steps[from], steps[to]] = [steps[to], steps[from]];
  return { ...routine, steps };
}

/** The same routine on the messages that a study has: without steps that take messages in. */
export function onMessagesThere(routine: Routine): Routine {
  return routine.steps
    .filter(({ kind }) => kind === 'import-source')
    .reduce((left, { name }) => withoutStep(left, name), routine);
}
