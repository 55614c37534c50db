import {
  FOLLOWING,
  type Routine,
  type RoutineDraft,
  type RoutineOutput,
  type RoutineStep,
  type Step,
  type StepParameters,
} from '@pebble/contract';
import { withQuestions } from './asking';
import { isReference, withLeaves } from './references';
import { madeBy, routineTrait } from './traits';

/** A thing of the study: what made it, and by what it is known. */
const keyOf = (thing: string, id: unknown): string => `${thing} ${String(id)}`;

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

/** All steps that led to a plate: what made it, and what was done to its network before. */
export function leadingTo(logbook: readonly Step[], plate: number): Set<number> {
  const kept = logbook.filter(
    ({ kind, state, result }) => kind === 'keep-plate' && state === 'done' && result?.['plate'] === plate,
  );
  const last = kept.at(-1);
  if (!last) return new Set();
  return new Set([last.id]);
}

/** Steps without which another one cannot be done: what made the things that it names, and for a weave all that made its material. */
function restsOn(step: Step, done: readonly Step[], makers: ReadonlyMap<string, Step>): Step[] {
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

/** Of steps that take each other's place, the last one on each thing. */
function withoutReplaced(steps: readonly Step[], leave: (step: Step, why: string) => void): Step[] {
  return steps.filter((step, i) => {
    const trait = routineTrait(step.kind);
    if (!('isReplaced' in trait) || !trait.isReplaced) return true;
    const later = steps
      .slice(i + 1)
      .some(
        ({ kind, parameters }) => kind === step.kind && parameters['network'] === step.parameters['network'],
      );
    if (later) leave(step, 'A later step of its kind took its place.');
    return !later;
  });
}

/** Whether all decisions of a step were taken back. */
function wasTakenBack({ result }: Step, done: readonly Step[]): boolean {
  const decisions = (result?.['decisions'] as number[] | undefined) ?? [];
  const back = new Set(
    done
      .filter(({ kind }) => kind === 'take-back-tidy')
      .flatMap(({ parameters }) => (parameters as StepParameters<'take-back-tidy'>).decisions),
  );
  return decisions.length > 0 && decisions.every((id) => back.has(id));
}

/** Whether a step is the first of its kind on its network, and of those kinds that follow without being asked for. */
function cameByItself({ id, kind, parameters }: Step, logbook: readonly Step[]): boolean {
  if (!FOLLOWING.has(kind)) return false;
  return !logbook.some(
    (one) => one.kind === kind && one.id < id && one.parameters['network'] === parameters['network'],
  );
}

/** Whether the source that an import made was taken out, and not taken back. */
function wasRemoved(step: Step, done: readonly Step[]): boolean {
  if (step.kind !== 'import-source') return false;
  const source = madeBy(step);
  const last = done.findLast(
    ({ kind, parameters }) =>
      (kind === 'remove-source' || kind === 'restore-source') && parameters['source'] === source,
  );
  return last?.kind === 'remove-source';
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

const singular = (field: string): string => field.replace(/s$/, '');

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
