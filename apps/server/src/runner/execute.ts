import { randomUUID } from 'node:crypto';
import type { StepKind } from '@pebble/contract';
import { stepParameters } from '@pebble/contract';
import { forgetFollowUp, keepFollowUps, type FollowUp } from '../storage/followUps';
import { connectCatalogue } from '../storage/catalogue';
import { dataFolderOf, type Store } from '../storage/open';
import { endStep, INTERRUPTED } from '../storage/steps';
import { readCard, type StudyCard } from '../storage/studies';
import { damageOf } from '../files/damage';
import { faultOf, faultPhrase, type Fault } from '../files/log';
import { isDiskFull, STEP_NEEDS_ROOM } from '../files/diskFull';
import { placeFiles, StagedFiles } from '../storage/files/stagedFiles';
import { lettingOthersPass, type Gate } from '../threads/gate';
import { stepDefinition } from '../operations';
import { StepCancelled, StepRefused } from '../errors/stepErrors';
import type { Progress } from '../threads/progress';
import type { StepResult, Threads } from '../operations/step';

/** A step to be run: its row in the logbook is there already, marked as running. */
export interface Task {
  readonly step: number;
  readonly study: string;
  readonly kind: StepKind;
  readonly parameters: unknown;
  readonly now: string;
  readonly mostRows: number;
  readonly threads: Threads;
  readonly gate: Gate;
  /** Where it follows another step: what is kept of that until it has ended. */
  readonly followUp?: number;
  /** What the step had prepared before its turn, and how many milliseconds that took. */
  readonly prepared?: unknown;
  readonly preparedFor?: number;
}

export interface Hooks {
  progress(phase: string, share: number | null): void;
  /** Whether it is to end, for whatever reason. */
  isCancelled(): boolean;
  /** Whether the reason is that the application is being closed. */
  isClosing(): boolean;
}

export interface Outcome {
  readonly state: 'done' | 'failed' | 'cancelled' | 'interrupted';
  readonly result: StepResult | null;
  readonly error: string | null;
  readonly place: { file?: string; row?: number; field?: string };
  /** What nobody expected, to be written down. */
  readonly fault?: Fault;
  readonly followUps: readonly FollowUp[];
  /** What the list of studies is to say from now on; null where nothing was changed. */
  readonly card: StudyCard | null;
}

/** What a step has prepared, and how many milliseconds that took. */
export type Prepared = Required<Pick<Task, 'prepared' | 'preparedFor'>>;

/** Does the long part of a step that only reads; one that fails or is cancelled in it has ended. */
export async function prepare(
  store: Store,
  task: Task,
  hooks: Hooks,
  elapsed: () => number,
): Promise<Prepared | Outcome> {
  const parameters = stepParameters[task.kind].parse(task.parameters);
  const { threads, gate } = task;
  const progress = progressOf(hooks);
  const pass = lettingOthersPass(gate, hooks.isCancelled, () =>
    hooks.progress('Waiting for other work', null),
  );
  try {
    const prepared = await stepDefinition(task.kind).prepare?.(
      { store, threads, gate },
      parameters,
      (phase, share) => {
        progress(phase, share);
        pass();
      },
    );
    return { prepared, preparedFor: elapsed() };
  } catch (error) {
    return ended(store, task, hooks, error, elapsed());
  }
}

function progressOf(hooks: Hooks): Progress {
  return (phase, share) => {
    if (hooks.isCancelled()) throw new StepCancelled();
    hooks.progress(phase, share);
  };
}

/**
 * Runs a step in one transaction together with the end of its logbook row: either all of it is there or nothing. A step that
 * fails or is cancelled leaves its row with the reason.
 */
export async function execute(
  store: Store,
  task: Task,
  hooks: Hooks,
  elapsed: () => number,
): Promise<Outcome> {
  const definition = stepDefinition(task.kind);
  const parameters = stepParameters[task.kind].parse(task.parameters);
  const progress = progressOf(hooks);
  const files = new StagedFiles(store, task.step);
  store.raw.exec('begin immediate');
  try {
    const result = await definition.run(
      {
        store,
        step: task.step,
        limits: { mostRows: task.mostRows },
        threads: task.threads,
        now: task.now,
        newId: randomUUID,
        shared: async (work) => {
          const catalogue = connectCatalogue(dataFolderOf(store));
          try {
            return await work(catalogue);
          } finally {
            await catalogue.close();
          }
        },
        files,
      },
      parameters,
      progress,
      task.prepared as never,
    );
    if (hooks.isCancelled()) throw new StepCancelled();
    const sentence = definition.describe(parameters, result);
    await endStep(store, task.step, {
      state: 'done',
      result,
      sentence,
      error: null,
      now: new Date().toISOString(),
      duration: elapsed(),
    });
    const followUps = await keepFollowUps(store, definition.followUps?.(result) ?? []);
    if (task.followUp !== undefined) await forgetFollowUp(store, task.followUp);
    await files.note();
    const card = await readCard(store);
    store.raw.exec('commit');
    await placeFiles(store);
    if (definition.erases) store.raw.pragma('wal_checkpoint(truncate)');
    return { state: 'done', result, error: null, place: {}, followUps, card };
  } catch (error) {
    if (store.raw.inTransaction) store.raw.exec('rollback');
    files.drop();
    return ended(store, task, hooks, error, elapsed());
  }
}

/** Writes down why a step was not done. */
async function ended(
  store: Store,
  { step, followUp }: Task,
  hooks: Hooks,
  error: unknown,
  duration: number,
): Promise<Outcome> {
  const state = stateAfter(error, hooks);
  const plain = state === 'interrupted' ? INTERRUPTED : plainError(error);
  const fault = plain === null ? faultOf(error) : undefined;
  const message = plain ?? unexpected(fault!);
  const now = new Date().toISOString();
  await endStep(store, step, { state, result: null, sentence: null, error: message, now, duration });
  // What was interrupted follows at the next start.
  if (followUp !== undefined && state !== 'interrupted') await forgetFollowUp(store, followUp);
  return {
    state,
    result: null,
    error: message,
    place: error instanceof StepRefused ? error.place : {},
    followUps: [],
    card: null,
    ...(fault ? { fault } : {}),
  };
}

function stateAfter(error: unknown, hooks: Hooks): 'failed' | 'cancelled' | 'interrupted' {
  if (!(error instanceof StepCancelled)) return 'failed';
  return hooks.isClosing() ? 'interrupted' : 'cancelled';
}

/** Null for an error that nobody expected. */
function plainError(error: unknown): string | null {
  if (error instanceof StepRefused || error instanceof StepCancelled) return error.message;
  if (isDiskFull(error)) return STEP_NEEDS_ROOM;
  return damageOf(error)?.message ?? null;
}

/** What is said of a fault that ended a step. */
export function unexpected(fault: Fault): string {
  return `Something went wrong that the application did not expect. Nothing of this step was kept; what was there before is unchanged. ${faultPhrase(fault)}`;
}
