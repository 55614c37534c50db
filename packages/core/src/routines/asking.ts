import type { Routine, RoutineQuestion, RoutineStep } from '@pebble/contract';
import { isReference, withLeaves, type Path } from './references';

/** What can be asked of a value that stands at a place of a step. */
interface Askable {
  /** How the question is called, before it is told apart from others. */
  readonly name: string;
  question(value: unknown): DistributiveOmit<RoutineQuestion, 'name'> | null;
}
type DistributiveOmit<T, K extends string> = T extends unknown ? Omit<T, K> : never;

const DAY = 86_400_000;

const whole = (
  ask: string,
  least: number,
  value: unknown,
): DistributiveOmit<RoutineQuestion, 'name'> | null =>
  typeof value === 'number' && Number.isInteger(value)
    ? { ask, kind: 'number', default: value, least, most: null, whole: true }
    : null;

const day = (ask: string, value: unknown): DistributiveOmit<RoutineQuestion, 'name'> | null => {
  if (value === null) return { ask, kind: 'day', default: null };
  if (typeof value !== 'number' || value % DAY !== 0) return null;
  return { ask, kind: 'day', default: new Date(value).toISOString().slice(0, 10) };
};

/** What usually is another value the next time, by where it stands. */
const ASKABLE: Readonly<Record<string, Askable>> = {
  'weave.atLeast': { name: 'least', question: (value) => whole('Ties of which weight at least?', 1, value) },
  'weave.from': { name: 'from', question: (value) => day('From which day on?', value) },
  'weave.until': { name: 'until', question: (value) => day('Before which day?', value) },
  'weave.without': {
    name: 'without',
    question: (value) =>
      Array.isArray(value)
        ? { ask: 'What is left out of it?', kind: 'list', default: value as string[] }
        : null,
  },
  'settings.resolution': {
    name: 'resolution',
    question: (value) =>
      typeof value === 'number'
        ? {
            ask: 'Resolution of the groups? Higher gives more and smaller ones.',
            kind: 'number',
            default: value,
            least: 0.01,
            most: 100,
            whole: false,
          }
        : null,
  },
  'settings.seed': { name: 'seed', question: (value) => whole('Which random seed?', 0, value) },
  'layout.seed': { name: 'seed', question: (value) => whole('Which random seed?', 0, value) },
};

/** What stands at a place is the same question everywhere where the answer was the same. */
const SHARED = new Set(['seed', 'from', 'until']);

/** The same routine in which files, bounds, periods and seeds are asked for, with what they were as what holds otherwise. */
export function withQuestions(routine: Routine): Routine {
  const questions: RoutineQuestion[] = [...routine.questions];
  const ask = (wanted: string, rest: DistributiveOmit<RoutineQuestion, 'name'>): { ask: string } => {
    const same = SHARED.has(wanted)
      ? questions.find((one) => {
          const { name, ...others } = one;
          return name.replace(/-\d+$/, '') === wanted && JSON.stringify(others) === JSON.stringify(rest);
        })
      : undefined;
    if (same) return { ask: same.name };
    let name = wanted;
    for (let i = 2; questions.some((one) => one.name === name); i++) name = `${wanted}-${i}`;
    questions.push({ name, ...rest });
    return { ask: name };
  };
  const steps = routine.steps.map((step) => {
    const parameters = withFiles(step, (file) =>
      ask('file', { ask: `Which file in place of ${file}?`.slice(0, 200), kind: 'file' }),
    );
    return { ...step, parameters: withAsked(parameters, ask) };
  });
  return { ...routine, questions: questions.sort((a, b) => rank(a) - rank(b)), steps };
}

/** Files first, then as they are listed above. */
function rank({ name }: RoutineQuestion): number {
  return Object.values(ASKABLE).findIndex((one) => one.name === name.replace(/-\d+$/, ''));
}

/** Files that were sent become questions: each by the field "upload" that has their id. */
function withFiles(
  { parameters }: RoutineStep,
  ask: (file: string) => { readonly ask: string },
): Record<string, unknown> {
  const visit = (value: unknown): unknown => {
    if (isReference(value) || typeof value !== 'object' || value === null) return value;
    if (Array.isArray(value)) return value.map(visit);
    const { upload, file } = value as { upload?: unknown; file?: unknown };
    if (typeof upload !== 'string' || typeof file !== 'string')
      return Object.fromEntries(Object.entries(value).map(([name, one]) => [name, visit(one)]));
    const asked = ask(file);
    return Object.fromEntries(
      Object.entries(value).map(([name, one]) => {
        if (name === 'upload' || name === 'file' || (name === 'name' && one === file)) return [name, asked];
        // Further files are further answers to the same question.
        if (name === 'more') return [name, []];
        // Whose followers a list has, each file says for itself.
        return name === 'reading' ? [name, { ...(one as object), followed: '' }] : [name, visit(one)];
      }),
    );
  };
  return visit(parameters) as Record<string, unknown>;
}

function withAsked(
  parameters: Record<string, unknown>,
  ask: (name: string, question: DistributiveOmit<RoutineQuestion, 'name'>) => { readonly ask: string },
): Record<string, unknown> {
  const at = (path: Path): Askable | undefined => ASKABLE[path.join('.')];
  const lists = Object.entries(parameters).map(([name, value]): [string, unknown] => {
    if (name !== 'weave' || typeof value !== 'object' || value === null) return [name, value];
    return [
      name,
      Object.fromEntries(
        Object.entries(value).map(([field, one]) => {
          const asked = Array.isArray(one) ? at(['weave', field]) : undefined;
          const question = asked?.question(one);
          return [field, question ? ask(asked!.name, question) : one];
        }),
      ),
    ];
  });
  return withLeaves(Object.fromEntries(lists), (leaf, path) => {
    const asked = isReference(leaf) ? undefined : at(path);
    const question = asked?.question(leaf);
    return question ? ask(asked!.name, question) : leaf;
  }) as Record<string, unknown>;
}
