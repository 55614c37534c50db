import type { Routine } from '@pebble/contract';
import { madeThing } from './check';
import { referencesIn, referencesTo } from './references';
import { routineTrait } from './traits';

/**
 * The steps that have to be done anew for another answer to a question: those that ask it, what they change, and all that rest on either. A
 * network to which something is added is woven anew, so that each answer has its own.
 */
export function restingOn({ steps }: Pick<Routine, 'steps'>, question: string): ReadonlySet<string> {
  const found = new Set<string>();
  const asks = (parameters: object): boolean =>
    referencesIn(parameters).some(({ reference }) => 'ask' in reference && reference.ask === question);
  for (let before = -1; before < found.size;) {
    before = found.size;
    let isMaterialOther = false;
    for (const step of steps) {
      const trait = routineTrait(step.kind);
      const needed = referencesTo(step);
      const usesMaterial = step.kind === 'weave' || step.kind === 'weave-slices';
      if (asks(step.parameters) || (usesMaterial && isMaterialOther) || needed.some((one) => found.has(one)))
        found.add(step.name);
      if (!found.has(step.name)) continue;
      if ('prepares' in trait && trait.prepares === 'material') isMaterialOther = true;
      for (const name of needed)
        if (madeThing(steps.find((one) => one.name === name)) === 'network') found.add(name);
    }
  }
  return found;
}
