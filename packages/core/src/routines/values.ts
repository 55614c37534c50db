import type { Routine, RoutineQuestion, RoutineStep } from '@pebble/contract';
import { isReference, type Path } from './references';

/** A value among the settings of a step that can be asked for each time, or is asked for. */
export interface AskableValue {
  readonly path: Path;
  /** What it is, or what holds where nobody says otherwise. */
  readonly value: Askable;
  /** The question that asks for it; null where it is the same each time. */
  readonly asked: string | null;
}
type Askable = string | number | boolean | null | readonly string[];

const DAY = 86_400_000;

/** The longest text that is a value and no prose. */
const LONGEST = 200;

/** Values of a step that can be asked for: numbers, short texts, what is on or off, and lists of short texts. */
export function askableValues({ questions }: Routine, { parameters }: RoutineStep): AskableValue[] {
  const found: AskableValue[] = [];
  const visit = (value: unknown, path: Path): void => {
    if (isReference(value)) {
      const question = 'ask' in value ? questions.find(({ name }) => name === value.ask) : undefined;
      if (question && question.kind !== 'file')
        found.push({ path, value: question.default, asked: question.name });
    } else if (isAskable(value)) {
      if (isPlain(value, path)) found.push({ path, value, asked: null });
    } else if (typeof value === 'object' && value !== null)
      for (const [name, one] of Object.entries(value))
        visit(one, [...path, Array.isArray(value) ? Number(name) : name]);
  };
  visit(parameters, []);
  return found;
}

/** Whether one knows what a value is to be: of nothing, and of an empty list, only by their place. */
function isPlain(value: Askable, path: Path): boolean {
  if (value === null) return isMoment(path);
  return !Array.isArray(value) || value.length > 0 || path.at(-1) === 'without';
}

/** Where a period begins or ends. */
const isMoment = (path: Path): boolean => path.at(-1) === 'from' || path.at(-1) === 'until';

/** The same routine that asks for a value each time; as it is where there is no such value. */
export function withValueAsked(routine: Routine, step: string, path: Path): Routine {
  const asked = askableValues(routine, stepOf(routine, step)).find((one) => isSame(one.path, path));
  if (!asked || asked.asked !== null) return routine;
  const name = freeName(routine, path);
  const question = questionOf(name, path, asked.value);
  return {
    ...withParameters(routine, step, (value, at) => (isSame(at, path) ? { ask: name } : value)),
    questions: [...routine.questions, question],
  };
}

/** The same routine that does not ask a question: what held where nobody said otherwise holds each time. */
export function withAnswerFixed(routine: Routine, name: string): Routine {
  const question = routine.questions.find((one) => one.name === name);
  if (!question || question.kind === 'file') return routine;
  const steps = routine.steps.map(({ name: step }) =>
    stepOf(
      withParameters(routine, step, (value) =>
        isReference(value) && 'ask' in value && value.ask === name ? fixedValue(question) : value,
      ),
      step,
    ),
  );
  return { ...routine, steps, questions: routine.questions.filter((one) => one !== question) };
}

/** A day stands in a step as the moment at which it begins. */
function fixedValue(question: Exclude<RoutineQuestion, { kind: 'file' }>): unknown {
  return question.kind === 'day' && question.default !== null
    ? Date.parse(`${question.default}T00:00:00Z`)
    : question.default;
}

function questionOf(name: string, path: Path, value: Askable): RoutineQuestion {
  const ask = `${path.filter((part) => typeof part === 'string').join(', ')}?`.slice(0, LONGEST);
  if (typeof value === 'boolean') return { name, ask, kind: 'yes or no', default: value };
  if (typeof value === 'string') return { name, ask, kind: 'text', default: value };
  if (isMoment(path) && (value === null || (typeof value === 'number' && value % DAY === 0)))
    return {
      name,
      ask,
      kind: 'day',
      default: value === null ? null : new Date(value).toISOString().slice(0, 10),
    };
  if (typeof value === 'number' || value === null)
    return {
      name,
      ask,
      kind: 'number',
      default: value,
      least: null,
      most: null,
      whole: Number.isInteger(value),
    };
  return { name, ask, kind: 'list', default: [...value] };
}

/** A name of a question after the place of its value. */
function freeName({ questions }: Routine, path: Path): string {
  const last = path.findLast((part) => typeof part === 'string') ?? 'value';
  const wanted =
    String(last)
      .replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)
      .replace(/[^a-z0-9-]/g, '')
      .replace(/^[^a-z]+/, '')
      .slice(0, 36) || 'value';
  let name = wanted;
  for (let i = 2; questions.some((one) => one.name === name); i++) name = `${wanted}-${i}`;
  return name;
}

function withParameters(
  routine: Routine,
  step: string,
  change: (value: unknown, path: Path) => unknown,
): Routine {
  const changed = (value: unknown, path: Path): unknown => {
    const other = change(value, path);
    if (other !== value || isReference(value)) return other;
    if (isAskable(value) || typeof value !== 'object' || value === null) return value;
    return Array.isArray(value)
      ? value.map((one, i) => changed(one, [...path, i]))
      : Object.fromEntries(Object.entries(value).map(([name, one]) => [name, changed(one, [...path, name])]));
  };
  return {
    ...routine,
    steps: routine.steps.map((one) =>
      one.name === step
        ? { ...one, parameters: changed(one.parameters, []) as RoutineStep['parameters'] }
        : one,
    ),
  };
}

function stepOf({ steps }: Routine, name: string): RoutineStep {
  return steps.find((step) => step.name === name)!;
}

function isAskable(value: unknown): value is Askable {
  if (typeof value === 'string') return value.length <= LONGEST;
  if (Array.isArray(value))
    return value.length <= 50 && value.every((one) => typeof one === 'string' && one.length <= LONGEST);
  return value === null || typeof value === 'number' || typeof value === 'boolean';
}

const isSame = (a: Path, b: Path): boolean => a.length === b.length && a.every((part, i) => part === b[i]);
