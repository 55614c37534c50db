import type { Logger } from 'pino';
import type { Collector } from '../collect/collector';
import type { Config } from '../config';
import type { StudyFolders } from '../storage/studyFolders';
import type { Runner } from '../runner/runner';
import type { RoutineRuns } from '../routines/runs';
import type { StandingRoutines } from '../routines/standing';
import type { Scratch } from '../routines/verify';

/** What the routes use. */
export interface Services {
  readonly config: Config;
  /** Whoever asks must have it. */
  readonly key: string;
  readonly studies: StudyFolders;
  readonly runner: Runner;
  readonly routines: RoutineRuns;
  readonly standing: StandingRoutines;
  /** Opens a data folder of its own. */
  readonly scratch: (dataFolder: string) => Promise<Scratch>;
  readonly collector: Collector;
  readonly log: Logger;
}
