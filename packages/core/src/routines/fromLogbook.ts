import type {
  Routine,
  RoutineDraft,
  RoutineOutput,
  RoutineStep,
  Step,
  StepParameters,
} from '@pebble/contract';
import { withQuestions } from './asking';
import { isReference, withLeaves } from './references';
import { keyOf, restsOn, singular } from './restsOn';
import { cameByItself, wasTakenBack, withoutReplaced } from './stillHolds';
import { madeBy, routineTrait } from './traits';

/** Fields of parameters that name things of the study by numbers, by the name of the field. Networks are known by ids of their own. */
const NUMBERED: Readonly<Record<string, string>> = { source: 'source', plate: 'plate' };

/** Which steps a routine is to be made of. */
export interface ChosenSteps {
  readonly name: string;
  readonly steps: ReadonlySet<number>;
}

/**
 * A routine of chosen steps of a logbook, and of all on which these rest. What cannot be done again on other data is left out and told,
 * files become questions, and so do bounds, seeds and periods.
 * @param logbook in the order in which steps were done
 */
export function routineOf(logbook: readonly Step[], { name, steps: chosen }: ChosenSteps): RoutineDraft {
  const done = logbook.filter(({ state }) => state === 'done');
  const makers = new Map<string, Step>();
  for (const step of done) {
    const made = madeBy(step);
    const trait = routineTrait(step.kind);
    if (made !== null && 'makes' in trait) makers.set(keyOf(trait.makes!, made), step);
  }
  const taken = new Map<number, Step>();
  const take = (step: Step): void => {
    if (taken.has(step.id)) return;
    taken.set(step.id, step);
    for (const needed of restsOn(step, done, makers)) take(needed);
  };
  for (const step of done) if (chosen.has(step.id)) take(step);

  const left: RoutineDraft['left'] = [];
  const leave = ({ id, sentence }: Step, why: string): void => void left.push({ step: id, sentence, why });
  const names = new Map<string, string>();
  const steps: RoutineStep[] = [];
  const outputs: RoutineOutput[] = [];
  const went: number[] = [];
  const ordered = [...taken.values()].sort((a, b) => a.id - b.id);
  for (const step of withoutReplaced(ordered, leave)) {
    const output = outputOf(step, names);
    if (output) {
      outputs.push(output);
      continue;
    }
    const trait = routineTrait(step.kind);
    if ('why' in trait) {
      leave(step, trait.why);
      continue;
    }
    const why =
      step.kind === 'tidy' && wasTakenBack(step, done)
        ? 'It was taken back.'
        : cameByItself(step, done)
          ? 'It follows by itself.'
          : null;
    if (why) {
      leave(step, why);
      continue;
    }
    const carried = trait.carry?.(step.parameters as never) ?? { parameters: step.parameters, left: [] };
    if ('why' in carried) {
      leave(step, carried.why);
      continue;
    }
    const named = withNames(carried.parameters, names, makers);
    if ('rests' in named) {
      leave(step, `It rests on what cannot go along: ${named.rests}`);
      continue;
    }
    for (const what of carried.left) leave(step, `Without ${what}: other data do not have that.`);
    const ownName = freeName(partName(step), steps);
    const made = madeBy(step);
    if (made !== null && 'makes' in trait) names.set(keyOf(trait.makes!, made), ownName);
    steps.push({ name: ownName, kind: step.kind, parameters: named.parameters });
    went.push(step.id);
  }
  const plain: Routine = { form: 1, name, description: '', version: 1, questions: [], steps, outputs };
  return {
    routine: withQuestions(plain),
    along: went.filter((id) => !chosen.has(id)),
    left: left.sort((a, b) => a.step - b.step),
  };
}

/** The step by which a plate was kept, or the one of which it is a duplicate; all that led to it goes along. */
export function leadingTo(logbook: readonly Step[], plate: number): Set<number> {
  const made = logbook.findLast(
    ({ kind, state, result }) =>
      (kind === 'keep-plate' || kind === 'duplicate-plate') &&
      state === 'done' &&
      result?.['plate'] === plate,
  );
  if (made?.kind !== 'duplicate-plate') return new Set(made ? [made.id] : []);
  return leadingTo(logbook, (made.parameters as StepParameters<'duplicate-plate'>).plate);
}

/** Parameters with names of steps in place of the things that these made; what they rest on where that cannot go along. */
function withNames(
  parameters: object,
  names: ReadonlyMap<string, string>,
  makers: ReadonlyMap<string, Step>,
): { readonly parameters: Record<string, unknown> } | { readonly rests: string } {
  let rests: string | null = null;
  const named = withLeaves(parameters, (leaf, path) => {
    if (isReference(leaf)) return leaf;
    const field = path.findLast((part) => typeof part === 'string') ?? '';
    const thing =
      field === 'network' && typeof leaf === 'string'
        ? keyOf('network', leaf)
        : typeof leaf === 'number' && NUMBERED[singular(field)]
          ? keyOf(NUMBERED[singular(field)], leaf)
          : null;
    if (thing === null) return leaf;
    const name = names.get(thing);
    if (name === undefined) rests ??= makers.get(thing)?.sentence ?? 'what is no longer there.';
    return name === undefined ? leaf : { made: name };
  }) as Record<string, unknown>;
  return rests === null ? { parameters: named } : { rests };
}

/** A figure or a table that was saved becomes one that the routine gives; null for any other step, and where it is of nothing that goes along. */
function outputOf(step: Step, names: ReadonlyMap<string, string>): RoutineOutput | null {
  const of = names.get(keyOf('network', step.parameters['network']));
  if (step.kind === 'export-network') {
    const { format } = step.parameters as StepParameters<'export-network'>;
    return of ? { what: 'network', of, format } : null;
  }
  if (step.kind !== 'export-figure') return null;
  const { plates, format } = step.parameters as StepParameters<'export-figure'>;
  const plate = plates.length === 1 ? names.get(keyOf('plate', plates[0])) : undefined;
  if (plates.length > 1) return null;
  const shown = plate ?? of;
  return shown ? { what: 'figure', of: shown, format } : null;
}

/** What a step is called in a routine: after what it made, or its kind. */
function partName({ kind, parameters }: Step): string {
  const own = parameters['title'] ?? parameters['name'];
  const made = 'makes' in routineTrait(kind) && typeof own === 'string' ? own : kind;
  const plain = made
    .normalize('NFD')
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^[^a-z]+|-+$/g, '')
    .slice(0, 36)
    .replace(/-+$/, '');
  return plain || kind;
}

function freeName(wanted: string, taken: readonly { readonly name: string }[]): string {
  for (let i = 1; ; i++) {
    const name = i === 1 ? wanted : `${wanted}-${i}`;
    if (!taken.some((one) => one.name === name)) return name;
  }
}
