import {
  ImportMapping,
  type Routine,
  type RoutineAnswer,
  type RoutineAnswers,
  type RoutineProblem,
  type RoutineQuestion,
  type RoutineStep,
} from '@pebble/contract';
import { answerTo, boundStep, type MadeThings } from './bind';
import { referencesIn } from './references';
import { routineTrait, type MadeThing } from './traits';

/** What is not right with a routine whatever is answered: names that come twice, references to nothing, circles, settings that do not fit. */
export function routineProblems(routine: Routine): RoutineProblem[] {
  const { questions, steps, outputs } = routine;
  return [
    ...twice(questions, 'question'),
    ...twice(steps, 'step'),
    ...questions.flatMap((question) =>
      question.kind === 'file' ? [] : wrongAnswer(question, question.default, 'What holds otherwise'),
    ),
    ...steps.flatMap((step, i) => referenceProblems(routine, step, i)),
    ...settingsProblems(routine, standIns(routine)),
    ...outputs.flatMap(({ what, of }) => {
      const made = madeThing(steps.find(({ name }) => name === of));
      const fits = what === 'figure' ? ['network', 'plate'] : ['network'];
      if (made && fits.includes(made)) return [];
      return [{ where: `output ${what}`, what: `No step “${of}” makes a ${fits.join(' or a ')}.` }];
    }),
  ];
}

/** What keeps a routine from running with these answers. */
export function answerProblems(routine: Routine, answers: RoutineAnswers): RoutineProblem[] {
  const known = new Set(routine.questions.map(({ name }) => name));
  const problems = [
    ...Object.keys(answers)
      .filter((name) => !known.has(name))
      .map((name) => ({ where: name, what: 'There is no such question.' })),
    ...routine.questions.flatMap((question) =>
      wrongAnswer(question, answerTo(question, answers), 'The answer'),
    ),
  ];
  return problems.length > 0
    ? problems
    : [...settingsProblems(routine, answers), ...emptyPeriods(routine, answers)];
}

/** Things as later steps would name them. */
const MADE: Readonly<Record<MadeThing, string | number>> = { network: 'n', source: 1, plate: 1 };

export function madeIn({ steps }: Routine): MadeThings {
  return Object.fromEntries(
    steps.flatMap((step) => {
      const thing = madeThing(step);
      return thing ? [[step.name, MADE[thing]]] : [];
    }),
  );
}

/** Files as if they had been given. */
function standIns({ questions }: Routine): RoutineAnswers {
  return Object.fromEntries(
    questions
      .filter(({ kind }) => kind === 'file')
      .map(({ name }) => [name, [{ upload: 'f', file: 'a file' }]]),
  );
}

export function madeThing(step: RoutineStep | undefined): MadeThing | null {
  if (!step) return null;
  const trait = routineTrait(step.kind);
  return ('makes' in trait && trait.makes) || null;
}

function twice(parts: readonly { readonly name: string }[], what: string): RoutineProblem[] {
  const names = parts.map(({ name }) => name);
  return [...new Set(names.filter((name, i) => names.indexOf(name) < i))].map((name) => ({
    where: name,
    what: `There are two of this name; each ${what} has its own.`,
  }));
}

function referenceProblems(
  { questions, steps }: Routine,
  { name, kind, parameters }: RoutineStep,
  at: number,
): RoutineProblem[] {
  const trait = routineTrait(kind);
  if ('why' in trait) return [{ where: name, what: `A routine cannot do this (${kind}). ${trait.why}` }];
  return referencesIn(parameters).flatMap(({ reference, path }) => {
    const where = [name, ...path].join(', ');
    if ('ask' in reference)
      return questions.some((question) => question.name === reference.ask)
        ? []
        : [{ where, what: `There is no question “${reference.ask}”.` }];
    const place = steps.findIndex((step) => step.name === reference.made);
    if (place < 0) return [{ where, what: `There is no step “${reference.made}”.` }];
    if (place >= at)
      return [{ where, what: `It rests on “${reference.made}”, which does not come before it.` }];
    return madeThing(steps[place]) ? [] : [{ where, what: `“${reference.made}” makes nothing to be named.` }];
  });
}

/** How a file is read about which nothing is known yet. */
const ANY: ImportMapping = ImportMapping.parse({
  format: 'csv',
  encoding: 'utf-8',
  delimiter: ',',
  dateForm: 'iso',
  columns: [],
});

function settingsProblems(routine: Routine, answers: RoutineAnswers): RoutineProblem[] {
  const made = madeIn(routine);
  return routine.steps.flatMap((step) => {
    if ('why' in routineTrait(step.kind)) return [];
    const reads = 'upload' in step.parameters && !('reading' in step.parameters);
    const parameters = reads ? { ...step.parameters, reading: ANY } : step.parameters;
    const bound = boundStep(routine, { ...step, parameters }, answers, made);
    return 'problems' in bound ? bound.problems : [];
  });
}

/** Steps of which nothing can come, as their period ends before it begins. */
function emptyPeriods(routine: Routine, answers: RoutineAnswers): RoutineProblem[] {
  const made = madeIn(routine);
  return routine.steps.flatMap((step) => {
    const bound = boundStep(routine, step, answers, made);
    const weave = 'request' in bound ? (bound.request.parameters['weave'] as Period | undefined) : undefined;
    const isEmpty =
      typeof weave?.from === 'number' && typeof weave.until === 'number' && weave.until <= weave.from;
    return isEmpty ? [{ where: step.name, what: 'The period is empty: it ends before it begins.' }] : [];
  });
}
interface Period {
  readonly from?: number | null;
  readonly until?: number | null;
}

/** What is wrong with an answer, beginning with the words for it. */
function wrongAnswer(
  question: RoutineQuestion,
  answer: RoutineAnswer | undefined,
  words: string,
): RoutineProblem[] {
  const what = reason(question, answer);
  return what ? [{ where: question.name, what: `${words} ${what}.` }] : [];
}

function reason(question: RoutineQuestion, answer: RoutineAnswer | undefined): string | null {
  switch (question.kind) {
    case 'file':
      return isFiles(answer) ? null : 'is to be a file';
    case 'number': {
      if (answer === null && question.default === null) return null;
      if (typeof answer !== 'number' || !Number.isFinite(answer)) return 'is to be a number';
      if (question.whole && !Number.isInteger(answer)) return 'is to be a whole number';
      if (question.least !== null && answer < question.least) return `is to be ${question.least} or more`;
      if (question.most !== null && answer > question.most) return `is to be ${question.most} or less`;
      return null;
    }
    case 'text':
      return typeof answer === 'string' ? null : 'is to be a text';
    case 'choice':
      return typeof answer === 'string' && question.choices.includes(answer)
        ? null
        : `is to be one of ${question.choices.join(', ')}`;
    case 'yes or no':
      return typeof answer === 'boolean' ? null : 'is to be yes or no';
    case 'day':
      return answer === null || (typeof answer === 'string' && isDay(answer))
        ? null
        : 'is to be a day, as 2026-03-01';
    case 'list':
      return Array.isArray(answer) && answer.every((one) => typeof one === 'string')
        ? null
        : 'is to be a list of texts';
  }
}

const isDay = (text: string): boolean =>
  /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(`${text}T00:00:00Z`));

const isFiles = (answer: RoutineAnswer | undefined): boolean =>
  Array.isArray(answer) && answer.length > 0 && answer.every((one) => typeof one === 'object');
