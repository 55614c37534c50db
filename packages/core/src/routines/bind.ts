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

/**
 * How a file is read: columns by their names as the step says, the rest as the file is. Whose followers a list has, each file says for
 * itself.
 */
function readingFor({ reading: own }: SentFile, given: ImportMapping | undefined): ImportMapping | undefined {
  if (!given || !own) return given ?? own;
  const role = new Map(given.columns.map((column) => [column.name, column.role]));
  const { format, sheet, encoding, delimiter } = own;
  return {
    ...given,
    ...{ format, sheet, encoding, delimiter },
    followed: given.followed || own.followed,
    columns: own.columns.map(({ name }) => ({ name, role: role.get(name) ?? 'attribute' })),
  };
}

/** Columns that a step reads and a file does not have. */
function missingColumns(
  where: string,
  { reading: own, file }: SentFile,
  given: ImportMapping | undefined,
): RoutineProblem[] {
  if (!given || !own) return [];
  const there = new Set(own.columns.map(({ name }) => name));
  return given.columns
    .filter(({ name, role }) => !FREE_ROLES.has(role) && !there.has(name))
    .map(({ name, role }) => ({ where, what: `${file} has no column “${name}”, which is read as ${role}.` }));
}
/** Roles that a file can do without. */
const FREE_ROLES: ReadonlySet<string> = new Set(['number', 'attribute', 'leave out', 'thing']);

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
  const given = filled['reading'] as ImportMapping | undefined;
  const [reading, ...others] = files.map((one) => readingFor(one, given));
  if (reading) filled['reading'] = reading;
  if (kind === 'import-source' && files.length > 1)
    filled['more'] = files.slice(1).map((one, i) => ({ ...one, reading: others[i] }));
  if (kind === 'weave') filled['weave'] = withoutEmptyFilters(filled['weave']);
  if (kind === 'keep-plate') Object.assign(filled, { ...AS_IT_IS, ...now, ...filled });
  const missing = files.flatMap((one) => missingColumns(name, one, given));
  if (missing.length > 0) return { problems: missing };
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

/** A filter by an empty text, as of no tag, is none. */
function withoutEmptyFilters(weave: unknown): unknown {
  if (typeof weave !== 'object' || weave === null) return weave;
  const isEmpty = (one: unknown): boolean =>
    typeof one === 'object' &&
    one !== null &&
    'filter' in one &&
    Object.values(one.filter as object).every((value) => value === '');
  return Object.fromEntries(
    Object.entries(weave).map(([name, value]) => [
      name,
      (name === 'only' || name === 'except') && isEmpty(value) ? null : (value as unknown),
    ]),
  );
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
