import { pino, type Logger } from 'pino';
import { checkOwnThings } from './api/ownThings';
import type { Config } from './config';
import { openLog } from './files/log';
import { makeOwnerOnly } from './files/ownerOnly';
import { RoutineRuns } from './routines/runs';
import { clearVerifying } from './routines/verify';
import { Runner } from './runner/runner';
import { holdFolder } from './storage/holder';
import { StudyFolders } from './storage/studyFolders';

export { readConfig } from './config';
export { savedPath, uploadPath } from './files/places';
export { BadPackage } from './files/openedZip';
export { outputName, RUN_RECORD, runRecord, type RunFile } from './packing/runFiles';
export { RoutineRefused } from './routines/runs';
export { keptRoutines } from './storage/routines';
export { newStudyId } from './storage/ids';
export { FolderInUse } from './storage/holder';
export { beginOpening } from './opening';

/** A data folder with all that works on it, without anything that listens to a network. */
export interface Engine {
  readonly studies: StudyFolders;
  readonly runner: Runner;
  readonly routines: RoutineRuns;
  /** Where what nobody expected is written down. */
  readonly log: Logger;
  /** Waits for what runs, and lets the folder go. */
  close(): Promise<void>;
}

/** Opens a data folder and starts the threads. Throws FolderInUse. */
export async function openEngine(
  config: Pick<Config, 'dataFolder' | 'mostRows' | 'longestLook'>,
  options: {
    readonly workerFile: string;
    readonly log?: Logger | undefined;
    readonly warm?: number | undefined;
  },
): Promise<Engine> {
  const told = options.log ?? pino({ level: 'warn' });
  makeOwnerOnly(config.dataFolder);
  const held = holdFolder(config.dataFolder);
  clearVerifying(config.dataFolder);
  const { log, close: closeLog } = openLog(config.dataFolder);
  const studies = await StudyFolders.open(config.dataFolder, (what) => told.warn(what));
  if (studies.interrupted > 0)
    told.warn(`${studies.interrupted} step(s) were interrupted by the last stop; the logbook shows them.`);
  const runner = new Runner(studies, options.workerFile, config, options.warm, log);
  const routines = new RoutineRuns(studies, runner, checkOwnThings);
  await routines.settle();
  return {
    studies,
    runner,
    routines,
    log,
    async close() {
      const left = routines.close();
      await runner.close();
      await left;
      await studies.close();
      await closeLog();
      held.release();
    },
  };
}
