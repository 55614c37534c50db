import { randomUUID } from 'node:crypto';
import { constants, copyFileSync, mkdirSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { RoutineAnswers, RoutineRun, RunCheck, SentFile } from '@pebble/contract';
import { StepCancelled } from '../errors/stepErrors';
import { uploadPath } from '../files/places';
import type { Runner } from '../runner/runner';
import { copyDatabase } from '../storage/copyStudy';
import { newStudyId } from '../storage/ids';
import { dataFolderOf, studyFile, studyFolder, type Store } from '../storage/open';
import { findRun, keptRun, noteCheck } from '../storage/routineRuns';
import type { StudyFolders } from '../storage/studyFolders';
import { VERSION } from '../version';
import { fingerprintOf, inputsOf, materialOf } from './fingerprint';
import { RoutineRefused, type RoutineRuns } from './runs';

/** Where runs are made again, in a data folder; nothing is left there. */
const PLACE = 'verifying';

/** A data folder of its own, in which something is done that leaves no trace elsewhere. */
export interface Scratch {
  readonly studies: StudyFolders;
  readonly runner: Runner;
  readonly routines: RoutineRuns;
  close(): Promise<void>;
}

/** Takes away what was left of a run that was being made again when the application was killed. */
export function clearVerifying(dataFolder: string): void {
  rmSync(join(dataFolder, PLACE), { recursive: true, force: true });
}

/** What a run is made again with. */
interface Verifying {
  readonly store: Store;
  readonly runner: Runner;
  readonly open: (dataFolder: string) => Promise<Scratch>;
  /** Aborted when nobody waits for it any more. */
  readonly signal: AbortSignal;
}

/**
 * Makes a run again, from the same files or in a copy of its study, and compares what comes out with what had come out. Null where there is no
 * such run. Throws RoutineRefused where it cannot be made again, StepCancelled where it was stopped.
 */
export async function verifyRun(
  { store, runner, open, signal }: Verifying,
  id: number,
  files: Readonly<Record<string, SentFile[]>>,
): Promise<RoutineRun | null> {
  const run = await findRun(store, id);
  if (!run) return null;
  if (run.results === null)
    refuse(
      'run',
      'Only a run that was done whole, by an application that keeps what came out, can be made again.',
    );
  const answers = await answersAgain(store, run, files);
  const dataFolder = join(dataFolderOf(store), PLACE, randomUUID());
  mkdirSync(dataFolder, { recursive: true, mode: 0o700 });
  try {
    const again = await madeAgain(await open(dataFolder), store, run, answers, signal);
    const now = (await runner.read('runResults', store.study, id)) ?? {};
    await noteCheck(store, id, {
      at: new Date().toISOString(),
      version: VERSION,
      parts: partsOf(run, again, now),
    });
  } finally {
    rmSync(dataFolder, { recursive: true, force: true });
  }
  return findRun(store, id);
}

/** The answers of a run, with files of the same bytes. Throws RoutineRefused where others are given, or the study is not as it was. */
async function answersAgain(
  store: Store,
  run: RoutineRun,
  files: Readonly<Record<string, SentFile[]>>,
): Promise<RoutineAnswers> {
  const { material } = (await keptRun(store, run.id))!;
  const given = await inputsOf(store, files);
  for (const [question, wanted] of Object.entries(run.inputs)) {
    const sums = new Set(given[question]?.map(({ sha256 }) => sha256));
    const missing = wanted.filter(({ sha256 }) => !sums.has(sha256)).map(({ file }) => file);
    if (missing.length > 0 || sums.size !== new Set(wanted.map(({ sha256 }) => sha256)).size)
      refuse(
        question,
        `The run had ${wanted.map(({ file }) => file).join(', ')}; what was given has not the same bytes${missing.length > 0 ? ` (missing: ${missing.join(', ')})` : ''}.`,
      );
  }
  if (Object.keys(run.inputs).length > 0) {
    if (material !== '')
      refuse(
        'study',
        'The study had messages already when it ran, and they cannot be told from those that came with it. A run in a new study can be verified.',
      );
    return { ...run.answers, ...inTheirOrder(run, files, given) };
  }
  const print = fingerprintOf(run.routine, run.answers, { inputs: {}, material: await materialOf(store) });
  if (run.version === VERSION && print !== run.fingerprint)
    refuse('study', 'The messages of this study, or what was decided of them, are others than when it ran.');
  return run.answers;
}

/** Files in the order, and with the names and readings, that they had in the run. */
function inTheirOrder(
  { answers, inputs }: RoutineRun,
  files: Readonly<Record<string, SentFile[]>>,
  given: RoutineRun['inputs'],
): RoutineAnswers {
  return Object.fromEntries(
    Object.entries(inputs).map(([question, wanted]) => [
      question,
      wanted.map(({ sha256 }, i): SentFile => {
        const at = given[question].findIndex((one) => one.sha256 === sha256);
        return { ...(answers[question] as SentFile[])[i], upload: files[question][at].upload };
      }),
    ]),
  );
}

/** What comes out of the same once more. */
async function madeAgain(
  scratch: Scratch,
  store: Store,
  { routine, inputs }: RoutineRun,
  answers: RoutineAnswers,
  signal: AbortSignal,
): Promise<Record<string, string>> {
  const { studies, runner, routines } = scratch;
  try {
    const study = newStudyId();
    if (Object.keys(inputs).length === 0) {
      const file = studyFile(studyFolder(studies.dataFolder, study));
      mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
      await copyDatabase(store.folder, file, () => undefined);
      await studies.adopt(study);
    } else {
      await runner.submit(study, { kind: 'create-study', parameters: { name: routine.name } });
      const folder = studies.folderOf(study);
      for (const question of Object.keys(inputs))
        for (const { upload } of answers[question] as SentFile[])
          copyFileSync(
            uploadPath(store.folder, upload),
            uploadPath(folder, upload),
            constants.COPYFILE_FICLONE,
          );
    }
    if (signal.aborted) throw new StepCancelled();
    const { id } = await routines.begin(study, routine, answers);
    signal.addEventListener('abort', () => void routines.cancel(study, id), { once: true });
    const { results } = await routines.ended(study, id);
    if (signal.aborted) throw new StepCancelled();
    return results ?? {};
  } finally {
    await scratch.close();
  }
}

function partsOf(
  { results, made }: RoutineRun,
  again: Readonly<Record<string, string>>,
  now: Readonly<Record<string, string>>,
): RunCheck['parts'] {
  return Object.entries(results!).map(([step, sum]) => ({
    step,
    what: typeof made[step] === 'number' ? 'plate' : 'network',
    isSame: again[step] === sum,
    isUnchanged: now[step] === undefined ? null : now[step] === sum,
  }));
}

function refuse(where: string, what: string): never {
  throw new RoutineRefused([{ where, what }]);
}
