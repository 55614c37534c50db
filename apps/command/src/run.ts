import { existsSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { Routine, type RoutineAnswers, type RoutineRun } from '@pebble/contract';
import { counted, READY_ROUTINES, routineProblems } from '@pebble/core';
import {
  keptRoutines,
  outputName,
  RoutineRefused,
  RUN_RECORD,
  runRecord,
  type Engine,
} from '@pebble/server/engine';
import { answersOf, filesByQuestion, readJson } from './answers';
import { EXIT, Refused } from './errors';
import { needRoom, writeOutputs } from './outputs';
import { findStudy, newStudy, sendFile, telling, type GivenFile } from './studies';
import type { Telling } from './telling';

interface RunOptions {
  readonly in: readonly string[];
  readonly set: readonly string[];
  readonly out: string;
  /** The study in which it runs; null for one of its own. */
  readonly study: string | null;
  readonly replace: boolean;
  /** Why people who have pseudonyms may be found in what is written; null for no reason. */
  readonly allow: string | null;
}

/** A routine from a file, one that comes with the application by its id, or one that was kept by its name. Throws Refused. */
export async function findRoutine(wanted: string, engine: Engine | null): Promise<Routine> {
  if (existsSync(wanted)) {
    const read = Routine.safeParse(readJson(wanted));
    if (!read.success) {
      const [{ path, message }] = read.error.issues;
      throw new Refused(
        `${wanted} is no routine that can be run (${path.join(', ') || 'the whole'}: ${message}).`,
      );
    }
    const [problem] = routineProblems(read.data);
    if (problem) throw new Refused(`${wanted} cannot be run. ${problem.where}: ${problem.what}`);
    return read.data;
  }
  const kept = engine ? await keptRoutines(engine.studies.catalogue) : [];
  const found = [...kept, ...READY_ROUTINES].find(
    ({ id, routine }) => id === wanted || routine.name === wanted,
  );
  if (found) return found.routine;
  throw new Refused(
    `There is no file ${wanted}, and no routine of this name. Ready-made are ${READY_ROUTINES.map(({ id }) => id).join(', ')}.`,
  );
}

/** Runs a routine in a study to its end, and says what became of each step. Throws Refused. */
export async function runIn(
  engine: Engine,
  study: string,
  routine: Routine,
  files: ReadonlyMap<string, readonly GivenFile[]>,
  others: RoutineAnswers,
  told: Telling,
): Promise<RoutineRun> {
  const sent = [...files].map(([name, given]) => [name, given.map((one) => sendFile(engine, study, one))]);
  const answers = { ...others, ...(Object.fromEntries(sent) as RoutineAnswers) };
  const stop = telling(engine, study, told);
  let run: RoutineRun;
  try {
    const { id } = await engine.routines.begin(study, routine, answers);
    run = await engine.routines.ended(study, id);
  } catch (error) {
    throw error instanceof RoutineRefused ? new Refused(error.message) : error;
  } finally {
    stop();
  }
  for (const { name, state, sentence, error } of run.steps)
    told.done(
      'step',
      { name, state, sentence, error },
      state === 'done' ? `${name}: ${sentence}` : `${name}: ${state}. ${error ?? ''}`,
    );
  return run;
}

/** Runs a routine and writes what it gives into a folder. Returns what is given back to whoever started the program. */
export async function runRoutine(
  engine: Engine,
  wanted: string,
  options: RunOptions,
  told: Telling,
): Promise<number> {
  const routine = await findRoutine(wanted, engine);
  const files = filesByQuestion(routine, options.in);
  needRoom(options.out, [...routine.outputs.map(outputName), RUN_RECORD], options.replace);
  const study =
    options.study === null ? await newStudy(engine, routine.name) : findStudy(engine, options.study).id;
  const given = new Map(
    [...files].map(([name, paths]) => [name, paths.map((path) => ({ path, file: basename(path) }))]),
  );
  const run = await runIn(engine, study, routine, given, answersOf(routine, options.set), told);
  const written = await writeOutputs(engine, run, options.out, options.allow);
  const { state, fingerprint } = run;
  writeFileSync(join(options.out, RUN_RECORD), runRecord(run, written));
  const names = written.map(({ name }) => name);
  told.done(
    'end',
    { state, fingerprint, files: names, folder: options.out },
    `${state === 'done' ? 'Done' : 'Done in part'}: ${counted(written.length, 'file')} and ${RUN_RECORD} in ${options.out}.`,
  );
  return state === 'done' ? EXIT.done : EXIT.incomplete;
}
