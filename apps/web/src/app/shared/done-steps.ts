import type { Step } from '@pebble/contract';

/**
 * How many steps of a sort are done: it is another number whenever one more is. The number of the newest would not do: a step that reads for
 * long ends after others that were asked for later.
 */
export function doneSteps(steps: readonly Step[], isOne: (step: Step) => boolean = () => true): number {
  return steps.reduce((count, step) => (step.state === 'done' && isOne(step) ? count + 1 : count), 0);
}
