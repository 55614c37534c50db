import type { Step } from '@pebble/contract';

/** Whether portraits of a grouping are being drawn, follow the measures by themselves once other work is done, or neither. */
type Portrayal = 'drawn now' | 'follows' | 'asked for';

export function portrayalOf(steps: readonly Step[], network: string, column: string): Portrayal {
  const isOf = (step: Step, kind: Step['kind']): boolean =>
    step.kind === kind && step.parameters['network'] === network;
  const drawn = steps.filter((step) => isOf(step, 'portray-groups') && step.parameters['column'] === column);
  if (drawn.some(({ state }) => state === 'running' || state === 'waiting')) return 'drawn now';
  const measured = steps.find((step) => isOf(step, 'measure-network') && step.state === 'done');
  const isNext = measured?.result?.['portraitsFollow'] === true && column === 'community';
  return isNext && !drawn.some(({ id }) => id > measured.id) ? 'follows' : 'asked for';
}
