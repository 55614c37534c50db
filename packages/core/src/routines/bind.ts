import {
  defaultMap,
  stepParameters,
  type ImportMapping,
  type Routine,
  type RoutineAnswer,
  type RoutineAnswers,
  type RoutineProblem,
  type RoutineQuestion,
  type RoutineStep,
  type SentFile,
  type StepParameters,
  type StepRequest,
} from '@pebble/contract';
import { counted } from '../words/sentence';
import { isReference, referencesIn, withLeaves, type Path } from './references';

/** What steps made, by their names in the routine. */
export type MadeThings = Readonly<Record<string, string | number>>;

/** What is wrong with a step as it would run, or the step. */
export type Bound = { readonly request: StepRequest } | { readonly problems: readonly RoutineProblem[] };

/** What a question is answered with: what was given, or what holds otherwise; undefined for a file that was not given. */
export function answerTo(question: RoutineQuestion, answers: RoutineAnswers): RoutineAnswer | undefined {
  return answers[question.name] ?? (question.kind === 'file' ? undefined : question.default);
}

/** What a map shows and how it was arranged: a plate that says nothing else is kept as its map is. */
export type MapNow = Pick<StepParameters<'keep-plate'>, 'description' | 'layout' | 'iterations'>;
const AS_IT_IS: StepParameters<'keep-plate'> = {
  network: '',
  title: '',
  note: '',
  description: defaultMap,
  layout: null,
  iterations: null,
  moved: 0,
  view: null,
  selection: null,
  upload: null,
  plate: null,
};

/** How a file is read: as the step says, or by itself; whose followers a list has, each file says for itself. */
function readingFor({ reading: own }: SentFile, given: ImportMapping | undefined): ImportMapping | undefined {
  return given ? { ...given, followed: given.followed || (own?.followed ?? '') } : own;
}

/**
 * A step with the answers and with what earlier steps made in place of its references. Problems say the field and the reason.
 * @param now the map of which a plate is kept
 */
export function boundStep(
  { questions }: Pick<Routine, 'questions'>,
  { name, kind, parameters }: RoutineStep,
  answers: RoutineAnswers,
  made: MadeThings,
  now: Partial<MapNow> = {},
): Bound {
  const byName = new Map(questions.map((question) => [question.name, question]));
  const filled = withLeaves(parameters, (leaf, path) => {
    if (!isReference(leaf)) return leaf;
    if ('made' in leaf) return made[leaf.made];
    const question = byName.get(leaf.ask);
    return question && valueOf(question, answerTo(question, answers), path);
  }) as Record<string, unknown>;
  const files = filesOf(parameters, byName, answers);
  const [reading, ...others] = files.map((one) =>
    readingFor(one, filled['reading'] as ImportMapping | undefined),
  );
  if (reading) filled['reading'] = reading;
  if (kind === 'import-source' && files.length > 1)
    filled['more'] = files.slice(1).map((one, i) => ({ ...one, reading: others[i] }));
  if (kind === 'keep-plate') Object.assign(filled, { ...AS_IT_IS, ...now, ...filled });
  const { success, data, error } = stepParameters[kind].safeParse(filled);
  const problems = success
    ? []
    : error.issues.map(({ path, message }) => ({ where: [name, ...path].join(', '), what: message }));
  if (kind !== 'import-source' && files.length > 1)
    problems.push({ where: name, what: `It takes one file, not ${counted(files.length, 'file')}.` });
  return problems.length > 0
    ? { problems }
    : { request: { kind, parameters: data as Record<string, unknown> } };
}

/** The files with which a step is answered. */
function filesOf(
  parameters: Record<string, unknown>,
  byName: ReadonlyMap<string, RoutineQuestion>,
  answers: RoutineAnswers,
): readonly SentFile[] {
  const { reference } = referencesIn(parameters).find(({ path }) => path.at(-1) === 'upload') ?? {};
  const question = reference && 'ask' in reference ? byName.get(reference.ask) : undefined;
  return question?.kind === 'file' ? ((answers[question.name] as SentFile[] | undefined) ?? []) : [];
}

/** What stands at a place for an answer: of a file its id where that is asked for, elsewhere its name; of a day the moment at which it begins. */
function valueOf(question: RoutineQuestion, answer: RoutineAnswer | undefined, path: Path): unknown {
  if (answer === undefined || answer === null) return answer;
  if (question.kind === 'file') {
    const [first] = answer as SentFile[];
    return path.at(-1) === 'upload' ? first?.upload : first?.file;
  }
  return question.kind === 'day' ? Date.parse(`${String(answer)}T00:00:00Z`) : answer;
}
