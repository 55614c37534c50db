import * as z from 'zod';
import { FIGURE_FORMATS } from './figure';
import { FileName, ImportMapping } from './gather';
import { NetworkExport } from './network';
import { StepKind, StepState } from './steps';

/** The newest form of the file in which a routine is kept. */
export const ROUTINE_FORM = 1;

/** What a part of a routine is called within it. */
const PartName = z
  .string()
  .regex(/^[a-z][a-z0-9-]{0,39}$/, 'A name has small letters, digits and "-", and begins with a letter.');

/** Stands for the answer to a question. */
const Asked = z.strictObject({ ask: PartName });
/** Stands for what a step makes: a network, a source or a plate. */
const Made = z.strictObject({ made: PartName });
/** What stands in the parameters of a step in place of a value. */
export const RoutineReference = z.union([Asked, Made]);
export type RoutineReference = z.infer<typeof RoutineReference>;

const QUESTION = {
  name: PartName,
  /** The question in words. */
  ask: z.string().trim().min(1, 'Say what is asked.').max(200),
};

/** What is asked before a routine runs, each with what holds where nobody says otherwise; only files have to be given. */
export const RoutineQuestion = z.discriminatedUnion('kind', [
  /** One file, or several of the same shape. */
  z.strictObject({ ...QUESTION, kind: z.literal('file') }),
  z.strictObject({
    ...QUESTION,
    kind: z.literal('number'),
    /** Null for no number, as no bound. */
    default: z.number().nullable(),
    least: z.number().nullable().default(null),
    most: z.number().nullable().default(null),
    whole: z.boolean().default(false),
  }),
  z.strictObject({ ...QUESTION, kind: z.literal('text'), default: z.string().max(2000) }),
  z.strictObject({
    ...QUESTION,
    kind: z.literal('choice'),
    default: z.string(),
    choices: z.array(z.string()).min(1).max(50),
  }),
  z.strictObject({ ...QUESTION, kind: z.literal('yes or no'), default: z.boolean() }),
  /** A day (UTC); null for no bound. The moment at which it begins stands in the step. */
  z.strictObject({ ...QUESTION, kind: z.literal('day'), default: z.iso.date().nullable() }),
  /** Several texts, as tags that are left out. */
  z.strictObject({ ...QUESTION, kind: z.literal('list'), default: z.array(z.string().max(300)).max(1000) }),
]);
export type RoutineQuestion = z.infer<typeof RoutineQuestion>;

/** One step of a routine: its parameters as the step has them, with references in place of some values. */
export const RoutineStep = z.strictObject({
  name: PartName,
  kind: z.enum(StepKind.options, { error: 'There is no such kind of step.' }),
  parameters: z.record(z.string(), z.unknown()),
});
export type RoutineStep = z.infer<typeof RoutineStep>;

/** What a routine gives as files, each of a network or a plate that a step makes. */
export const RoutineOutput = z.discriminatedUnion('what', [
  z.strictObject({ what: z.literal('figure'), of: PartName, format: z.enum(FIGURE_FORMATS) }),
  z.strictObject({ what: z.literal('network'), of: PartName, format: NetworkExport }),
  z.strictObject({ what: z.literal('methods'), of: PartName }),
]);
export type RoutineOutput = z.infer<typeof RoutineOutput>;

/** Steps that can be run again on other data: a file that can be read and written by hand, without anything of a study's data in it. */
export const Routine = z.strictObject({
  form: z.literal(ROUTINE_FORM, {
    error: `This application reads routines of form ${ROUTINE_FORM}; one of a later form needs a later version.`,
  }),
  name: z.string().trim().min(1, 'Give the routine a name.').max(120),
  description: z.string().trim().max(2000).default(''),
  /** Its own; each change makes it higher. */
  version: z.int().min(1).default(1),
  questions: z.array(RoutineQuestion).max(60).default([]),
  steps: z.array(RoutineStep).min(1, 'A routine has at least one step.').max(200),
  outputs: z.array(RoutineOutput).max(60).default([]),
});
export type Routine = z.infer<typeof Routine>;
/** As it is written: what has a default may be left out. */
export type WrittenRoutine = z.input<typeof Routine>;

/** A file that was sent to a study, and how it would be read by itself. */
export const SentFile = z.object({
  upload: z.string(),
  file: FileName,
  reading: ImportMapping.optional(),
});
export type SentFile = z.infer<typeof SentFile>;

export const RoutineAnswer = z.union([
  z.array(SentFile).min(1).max(1000),
  z.number(),
  z.string().max(2000),
  z.boolean(),
  z.array(z.string().max(300)).max(1000),
  z.null(),
]);
export type RoutineAnswer = z.infer<typeof RoutineAnswer>;

/** Answers by the name of their question; where there is none, the default holds. */
export const RoutineAnswers = z.record(z.string(), RoutineAnswer);
export type RoutineAnswers = z.infer<typeof RoutineAnswers>;

/** What is not right with a routine or its answers, and where. */
export const RoutineProblem = z.object({ where: z.string(), what: z.string() });
export type RoutineProblem = z.infer<typeof RoutineProblem>;

/** A routine in the list of all: those that come with the application cannot be changed. */
export const KeptRoutine = z.object({
  id: z.string(),
  routine: Routine,
  isReady: z.boolean(),
  /** Null for one that comes with the application. */
  changedAt: z.string().nullable(),
});
export type KeptRoutine = z.infer<typeof KeptRoutine>;
export const RoutineList = z.array(KeptRoutine);

/** Steps of a logbook from which a routine is to be made, or the plate to which all is to lead. */
export const DraftRequest = z.union([
  z.object({ name: z.string().trim().min(1).max(120), steps: z.array(z.int()).min(1).max(500) }),
  z.object({ name: z.string().trim().min(1).max(120), plate: z.int() }),
]);
export type DraftRequest = z.infer<typeof DraftRequest>;

/** A routine made of a logbook, and what of it did not go along. */
export const RoutineDraft = z.object({
  routine: Routine,
  /** Steps that were not chosen, and on which chosen ones rest. */
  along: z.array(z.int()),
  /** What was left out: the step, what of it, and why. */
  left: z.array(z.object({ step: z.int(), sentence: z.string(), why: z.string() })),
});
export type RoutineDraft = z.infer<typeof RoutineDraft>;

/** A routine with answers, before it runs. */
export const RoutineRequest = z.object({ routine: Routine, answers: RoutineAnswers.default({}) });
export type RoutineRequest = z.infer<typeof RoutineRequest>;

/** The same with a list of answers to one of its questions, each to be tried. */
export const VariationRequest = RoutineRequest.extend({
  question: PartName,
  values: z.array(RoutineAnswer).min(2, 'Give at least two values.').max(50, 'At most 50 values are tried.'),
});
export type VariationRequest = z.infer<typeof VariationRequest>;

/** What it will do. */
export const RoutinePlan = z.object({
  paragraph: z.string(),
  /** Seconds that it will take about; null where nothing like it was done here yet. */
  seconds: z.number().nullable(),
  /** Why it cannot run; none where it can. */
  problems: z.array(RoutineProblem),
});
export type RoutinePlan = z.infer<typeof RoutinePlan>;

/** One step of a run, and what became of it. */
export const RunStep = z.object({
  name: z.string(),
  kind: StepKind,
  /** "left out" where it rests on one that was not done. */
  state: z.enum([...StepState.options, 'left out']),
  /** Its number in the logbook; null before it began. */
  step: z.int().nullable(),
  sentence: z.string(),
  error: z.string().nullable(),
});
export type RunStep = z.infer<typeof RunStep>;

export const RoutineRunState = z.enum([
  'waiting',
  'running',
  'done',
  'incomplete',
  'cancelled',
  'interrupted',
]);
export type RoutineRunState = z.infer<typeof RoutineRunState>;

/** A file that a run took in, and its SHA-256 (hexadecimal). */
export const RunInput = z.object({ file: z.string(), sha256: z.string() });
export type RunInput = z.infer<typeof RunInput>;

/** What is written beside the files of a run: all that is needed to know what it was, and to make it again. */
export const RunRecord = z.object({
  /** The version of the application. */
  application: z.string(),
  fingerprint: z.string().nullable(),
  state: RoutineRunState,
  startedAt: z.string(),
  endedAt: z.string().nullable(),
  inputs: z.record(z.string(), z.array(RunInput)),
  answers: RoutineAnswers,
  /** SHA-256 of each file, by its name. */
  files: z.record(z.string(), z.string()),
  made: z.record(z.string(), z.union([z.string(), z.int()])),
  steps: z.array(RunStep),
  routine: Routine,
});
export type RunRecord = z.infer<typeof RunRecord>;

/** What came of making a run again: whether each network and plate is the same, by the step that made it. */
export const RunCheck = z.object({
  at: z.string(),
  /** The version of the application that made it again. */
  version: z.string(),
  parts: z.array(
    z.object({
      step: z.string(),
      what: z.enum(['network', 'plate']),
      /** Whether it came out again as it did. */
      isSame: z.boolean(),
      /** Whether what the study has is still what came out; null where it is not there any more. */
      isUnchanged: z.boolean().nullable(),
    }),
  ),
});
export type RunCheck = z.infer<typeof RunCheck>;

/** The files of a run once more, by the questions that they answer. */
export const VerifyRequest = z.object({
  files: z.record(PartName, z.array(SentFile).min(1).max(1000)).default({}),
});
export type VerifyRequest = z.infer<typeof VerifyRequest>;

/** One time that a routine was run in a study. */
export const RoutineRun = z.object({
  id: z.int(),
  study: z.string(),
  routine: Routine,
  answers: RoutineAnswers,
  state: RoutineRunState,
  /** The number of the standing routine that began it; null where somebody did. */
  standing: z.int().nullable(),
  /** Of a run that is one of several with other answers to one question: which one, and the run that came first, whose steps it shares. */
  varied: z.object({ question: z.string(), value: RoutineAnswer, first: z.int() }).nullable(),
  steps: z.array(RunStep),
  /** What steps made, by their names. */
  made: z.record(z.string(), z.union([z.string(), z.int()])),
  /** Of routine, answers and data: the same ones give the same results. Null before it is done. */
  fingerprint: z.string().nullable(),
  /** Its files, by the questions that they answered. */
  inputs: z.record(z.string(), z.array(RunInput)),
  /** The version of the application that ran it. */
  version: z.string(),
  /** SHA-256 of each network and plate that came out, by the step that made it; null before it is done. */
  results: z.record(z.string(), z.string()).nullable(),
  /** What came of making it again the last time; null where nobody did. */
  verified: RunCheck.nullable(),
  startedAt: z.string(),
  endedAt: z.string().nullable(),
});
export type RoutineRun = z.infer<typeof RoutineRun>;
/** The newest first. */
export const RoutineRunList = z.array(RoutineRun);

/** The form of a routine's file for whoever writes one by hand: JSON Schema, draft 2020-12. */
export function routineSchema(): object {
  return {
    ...z.toJSONSchema(Routine, { io: 'input', target: 'draft-2020-12' }),
    title: 'A routine of Pebble Thread',
  };
}

/** Some of many: their number, and the first names. */
const Named = z.object({ count: z.int(), first: z.array(z.string()) });

/** One network of a run. */
const RunNetwork = z.object({
  network: z.string(),
  nodes: z.int(),
  edges: z.int(),
  /** Communities of more than one node. */
  groups: z.int(),
});

/** What is other in a network than in the one that the same step made in an earlier run. */
export const NetworkDifferences = z.object({
  /** The step that made it. */
  step: z.string(),
  before: RunNetwork,
  now: RunNetwork,
  came: Named,
  gone: Named,
  /** Measures of the whole network in words, with what they were. */
  measures: z.array(z.object({ title: z.string(), before: z.number(), now: z.number() })),
  /** Adjusted Rand index of both groupings over the nodes that both networks have; null where there are none. */
  agreement: z.number().nullable(),
  /** What became of each group, the largest first. */
  groups: z.array(z.object({ title: z.string(), what: z.string() })),
  /** The column by which nodes are ranked, and the first ten of now with the rank that they had; null for those who were not there. */
  by: z.string(),
  ranks: z.array(z.object({ name: z.string(), now: z.int(), before: z.int().nullable() })),
});
export type NetworkDifferences = z.infer<typeof NetworkDifferences>;

/** A run beside an earlier one of the same routine. */
export const RunDifferences = z.object({
  run: z.int(),
  /** Null where there is no earlier one. */
  before: z.int().nullable(),
  networks: z.array(NetworkDifferences),
  /** Plates of the same step that both have still. */
  plates: z.array(z.object({ step: z.string(), before: z.int(), now: z.int() })),
});
export type RunDifferences = z.infer<typeof RunDifferences>;
export const DifferencesQuery = z.object({
  /** The number of the run beside which it is put; without it the last one before it. */
  beside: z.coerce.number().int().optional(),
});
