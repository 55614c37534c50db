import {
  Routine,
  RoutineAnswers,
  RunCheck,
  type RoutineAnswer,
  type RoutineRun,
  type RoutineRunState,
  type RunStep,
  type Step,
} from '@pebble/contract';
import { madeBy, restingOn } from '@pebble/core';
import type { Selectable } from 'kysely';
import { isAmong } from './lists';
import type { Store } from './open';
import type { RoutineRunTable } from './schema';
import { stepsOfRuns, type StepOfRun } from './steps';
import { VERSION } from '../version';

/** Why a step of a run was not done that never came into the logbook. */
export type Stopped = Readonly<
  Record<string, { readonly state: 'failed' | 'left out'; readonly why: string }>
>;

/** A run as it is kept: what its steps did stands in the logbook. */
interface KeptRun {
  readonly id: number;
  readonly routine: Routine;
  readonly answers: RoutineAnswers;
  readonly state: RoutineRunState;
  readonly varied: RoutineRun['varied'];
  readonly standing: number | null;
  readonly stopped: Stopped;
  /** A hash of what the study had before. */
  readonly material: string;
  readonly version: string;
  readonly inputs: RoutineRun['inputs'];
}

/** With what a run begins, beside its routine and answers. */
interface BegunWith extends Pick<RoutineRun, 'varied' | 'standing' | 'state' | 'inputs' | 'fingerprint'> {
  /** A hash of what the study had before. */
  readonly material: string;
}

export async function beginRun(
  { query }: Store,
  {
    routine,
    answers,
    varied = null,
    standing = null,
    state = 'running',
    material = '',
    inputs = {},
    fingerprint = null,
  }: Pick<RoutineRun, 'routine' | 'answers'> & Partial<BegunWith>,
): Promise<number> {
  const { id } = await query
    .insertInto('routine_run')
    .values({
      routine: JSON.stringify(routine),
      answers: JSON.stringify(answers),
      state,
      stopped: '{}',
      fingerprint,
      inputs: JSON.stringify(inputs),
      version: VERSION,
      material,
      results: null,
      verified: null,
      first_run: varied && varied.first > 0 ? varied.first : null,
      varied: varied && JSON.stringify(varied),
      standing,
      started_at: new Date().toISOString(),
      ended_at: null,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
}

/** Writes down how far a run is; one that is not running any more has ended now. */
export async function changeRun(
  { query }: Store,
  id: number,
  change: { state: RoutineRunState; stopped?: Stopped; results?: RoutineRun['results'] },
): Promise<void> {
  const { state, stopped, results } = change;
  await query
    .updateTable('routine_run')
    .set({
      state,
      ended_at: state === 'running' || state === 'waiting' ? null : new Date().toISOString(),
      ...(stopped ? { stopped: JSON.stringify(stopped) } : {}),
      ...(results ? { results: JSON.stringify(results) } : {}),
    })
    .where('id', '=', id)
    .execute();
}

/** Writes down what came of making a run again. */
export async function noteCheck({ query }: Store, id: number, verified: RunCheck): Promise<void> {
  await query
    .updateTable('routine_run')
    .set({ verified: JSON.stringify(verified) })
    .where('id', '=', id)
    .execute();
}

export async function keptRun({ query }: Store, id: number): Promise<KeptRun | null> {
  const row = await query.selectFrom('routine_run').selectAll().where('id', '=', id).executeTakeFirst();
  return row ? toKept(row) : null;
}

/** Runs that were going on when the process was killed. */
export async function interruptRuns({ query }: Store): Promise<void> {
  await query
    .updateTable('routine_run')
    .set({ state: 'interrupted' satisfies RoutineRunState, ended_at: new Date().toISOString() })
    .where(isAmong('state', ['running', 'waiting'] satisfies RoutineRunState[]))
    .execute();
}

/** A run with what became of each of its steps; null where there is none. */
export async function findRun(store: Store, id: number): Promise<RoutineRun | null> {
  const row = await store.query.selectFrom('routine_run').selectAll().where('id', '=', id).executeTakeFirst();
  if (!row) return null;
  return toRun(store.study, row, await stepsOfRuns(store, [row.id, row.first_run ?? row.id]));
}

/** All runs of a study, the newest first. */
export async function listRuns(store: Store): Promise<RoutineRun[]> {
  const rows = await store.query.selectFrom('routine_run').selectAll().orderBy('id', 'desc').execute();
  const steps = await stepsOfRuns(store);
  return rows.map((row) => toRun(store.study, row, steps));
}

function toKept(row: Selectable<RoutineRunTable>): KeptRun {
  return {
    id: row.id,
    routine: Routine.parse(JSON.parse(row.routine)),
    answers: RoutineAnswers.parse(JSON.parse(row.answers)),
    state: row.state as RoutineRunState,
    varied: row.varied ? { ...(JSON.parse(row.varied) as Varied), first: row.first_run ?? row.id } : null,
    standing: row.standing,
    stopped: JSON.parse(row.stopped) as Stopped,
    material: row.material,
    version: row.version,
    inputs: JSON.parse(row.inputs) as RoutineRun['inputs'],
  };
}

interface Varied {
  readonly question: string;
  readonly value: RoutineAnswer;
}

function toRun(
  study: string,
  row: Selectable<RoutineRunTable>,
  steps: ReadonlyMap<number, readonly StepOfRun[]>,
): RoutineRun {
  const { stopped, material: _, ...kept } = toKept(row);
  const { routine, varied } = kept;
  const own = varied ? restingOn(routine, varied.question) : null;
  const shared =
    own && row.first_run !== null
      ? (steps.get(row.first_run) ?? []).filter(({ part, state }) => state === 'done' && !own.has(part))
      : [];
  const done = [...shared, ...(steps.get(row.id) ?? [])];
  /** A step that was begun again stands for those of before. */
  const last = new Map<string, Step>(done.map((step) => [step.part, step]));
  const made: Record<string, string | number> = {};
  for (const [part, step] of last) {
    const thing = madeBy(step);
    if (step.state === 'done' && thing !== null) made[part] = thing;
  }
  return {
    ...kept,
    study,
    steps: routine.steps.map(({ name, kind }): RunStep => {
      const step = last.get(name);
      const unheard = step ? undefined : stopped[name];
      return {
        name,
        kind,
        state: step?.state ?? unheard?.state ?? 'waiting',
        step: step?.id ?? null,
        sentence: step?.sentence ?? '',
        error: step?.error ?? unheard?.why ?? null,
      };
    }),
    made,
    fingerprint: row.fingerprint,
    results: row.results ? (JSON.parse(row.results) as Record<string, string>) : null,
    verified: row.verified ? RunCheck.parse(JSON.parse(row.verified)) : null,
    startedAt: row.started_at,
    endedAt: row.ended_at,
  };
}
