import type { StepKind, StepParameters, StepRequest } from '@pebble/contract';
import type { Config } from '../config';
import type { Catalogue } from '../storage/catalogue';
import type { Store } from '../storage/open';
import type { StudyFolders } from '../storage/studyFolders';
import type { StagedFiles } from '../storage/files/stagedFiles';
import type { Gate } from '../threads/gate';
import type { Progress } from '../threads/progress';

/** Programs of threads that work beside a step. */
export interface Threads {
  /** Reads files. */
  readonly intake: string;
  /** Finds shortest paths. */
  readonly paths: string;
}

/** What a step may use while it runs; its transaction is open on `store`. */
export interface StepContext {
  readonly store: Store;
  /** Number of the step's row in the logbook. */
  readonly step: number;
  readonly limits: Pick<Config, 'mostRows'>;
  readonly threads: Threads;
  /** The time at which the step began, RFC 3339. */
  readonly now: string;
  /** A fresh id, for things that the step makes. */
  readonly newId: () => string;
  /** Does something with what all studies share: at once, whatever becomes of the step, so that it is to be the last thing that can fail. */
  readonly shared: <T>(work: (catalogue: Catalogue) => Promise<T>) => Promise<T>;
  /** What it writes to files and takes away: it happens when the step is done, or not at all. */
  readonly files: StagedFiles;
}

export type StepResult = Record<string, unknown>;

/** What may be used before the turn of a step has come: nothing is written. */
export interface PrepareContext extends Pick<StepContext, 'store' | 'threads'> {
  /** For threads that it starts. */
  readonly gate: Gate;
}

/** One kind of step: everything that changes a study is one of these. */
export interface StepDefinition<K extends StepKind, R extends StepResult = StepResult, P = undefined> {
  readonly kind: K;
  /**
   * The long part of a step that only reads, beside other steps, which wait for none of it. What it gives is handed to `run`, which then
   * has to see whether it still fits.
   */
  prepare?(context: PrepareContext, parameters: StepParameters<K>, progress: Progress): Promise<P>;
  run(context: StepContext, parameters: StepParameters<K>, progress: Progress, prepared: P): Promise<R>;
  /** Whether it takes something away for good: nothing of that may stay in files that the database keeps beside itself. */
  readonly erases?: boolean;
  /** The sentence for the methods text; the result is null while the step runs and after a failure. */
  describe(parameters: StepParameters<K>, result: R | null): string;
  /** The seed, for steps that use chance. */
  seed?(parameters: StepParameters<K>): number;
  /** Whether it is the first one of a study, whose folder is made for it. */
  readonly beginsStudy?: boolean;
  /** What becomes of studies as a whole once the step has ended; the result is null where it was not done. */
  afterwards?(studies: StudyFolders, study: string, result: R | null): Promise<void>;
  /** Steps that follow at once when this one is done. */
  followUps?(result: R): StepRequest[];
}
