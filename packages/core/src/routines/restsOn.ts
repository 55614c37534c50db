import type { Step } from '@pebble/contract';
import { withLeaves } from './references';
import { cameByItself, wasRemoved } from './stillHolds';
import { routineTrait } from './traits';

/** A thing of the study: what made it, and by what it is known. */
export const keyOf = (thing: string, id: unknown): string => `${thing} ${String(id)}`;

/** What a field is called that names one of the things that another one lists. */
export const singular = (field: string): string => field.replace(/s$/, '');

/** Steps without which another one cannot be done: what made the things that it names, and for a weave all that made its material. */
export function restsOn(step: Step, done: readonly Step[], makers: ReadonlyMap<string, Step>): Step[] {
  const needed: Step[] = [];
  withLeaves(step.parameters, (leaf, path) => {
    const field = path.findLast((part) => typeof part === 'string') ?? '';
    const maker =
      typeof leaf === 'string'
        ? makers.get(keyOf('network', leaf))
        : makers.get(keyOf(singular(field), leaf));
    if (maker && maker.id < step.id) needed.push(maker);
    return leaf;
  });
  const usesMaterial = step.kind === 'weave' || step.kind === 'weave-slices' || prepares(step) === 'material';
  if (usesMaterial && step.kind !== 'import-source')
    needed.push(
      ...done.filter((one) => one.id < step.id && prepares(one) === 'material' && !wasRemoved(one, done)),
    );
  needed.push(...preparedFor(step, done));
  return needed;
}

/** What was done to a network before, as far as a step of it needs that: a plate shows all of it, others name columns that it made. */
function preparedFor(step: Step, done: readonly Step[]): Step[] {
  const before = done.filter(
    (one) =>
      one.id < step.id &&
      one.parameters['network'] === step.parameters['network'] &&
      prepares(one) === 'network' &&
      !cameByItself(one, done),
  );
  // A plate has a description of its own.
  if (step.kind === 'keep-plate') return before.filter(({ kind }) => kind !== 'describe-map');
  const written = JSON.stringify(step.parameters);
  return before.filter(({ kind, parameters }) => {
    const column = parameters['name'] ?? (kind === 'add-groups' ? parameters['column'] : undefined);
    const isNamed = typeof column === 'string' && written.includes(column);
    return isNamed || (step.kind === 'compute-column' && kind === 'answer-questions');
  });
}

const prepares = ({ kind }: Step): string | undefined => {
  const trait = routineTrait(kind);
  return 'prepares' in trait ? trait.prepares : undefined;
};
