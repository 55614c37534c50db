import type { Logbook, PageQuery, Step, StepKind, StepState } from '@pebble/contract';
import { isAmong } from './lists';
import type { Store } from './open';
import { readPage } from './pages';
import type { StepTable } from './schema';
import type { Selectable } from 'kysely';

/** All steps of a study, the newest first. */
export async function listSteps(store: Store): Promise<Step[]> {
  const rows = await newestFirst(store).execute();
  return rows.map((row) => toStep(store.study, row));
}

export async function readLogbook(store: Store, page: PageQuery): Promise<Logbook> {
  const { rows, ...place } = await readPage(newestFirst(store), page);
  return { ...place, steps: rows.map((row) => toStep(store.study, row)) };
}

const newestFirst = ({ query }: Store) => query.selectFrom('step').selectAll().orderBy('id', 'desc');

export async function findStep({ query, study }: Store, id: number): Promise<Step | null> {
  const row = await query.selectFrom('step').selectAll().where('id', '=', id).executeTakeFirst();
  return row ? toStep(study, row) : null;
}

/** A step of a run of a routine: the number of the run, and what the step is called in the routine. */
export interface RunPart {
  readonly run: number;
  readonly part: string;
}

/** Writes the row of a step that begins; returns its number. */
export async function beginStep(
  { query }: Store,
  step: {
    kind: StepKind;
    parameters: unknown;
    sentence: string;
    seed: number | null;
    now: string;
    of?: RunPart;
  },
): Promise<number> {
  const { id } = await query
    .insertInto('step')
    .values({
      kind: step.kind,
      state: 'running',
      parameters: JSON.stringify(step.parameters),
      result: null,
      sentence: step.sentence,
      error: null,
      seed: step.seed,
      started_at: step.now,
      ended_at: null,
      duration: null,
      run_id: step.of?.run ?? null,
      run_part: step.of?.part ?? null,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
}

interface StepEnd {
  readonly state: StepState;
  readonly result: unknown;
  readonly sentence: string | null;
  readonly error: string | null;
  readonly now: string;
  readonly duration: number;
}

export async function endStep({ query }: Store, id: number, end: StepEnd): Promise<void> {
  await query
    .updateTable('step')
    .set({
      state: end.state,
      result: end.result === null ? null : JSON.stringify(end.result),
      error: end.error,
      ended_at: end.now,
      duration: Math.round(end.duration),
      ...(end.sentence === null ? {} : { sentence: end.sentence }),
    })
    .where('id', '=', id)
    .execute();
}

export const INTERRUPTED =
  'The application was stopped while this step ran. Nothing of it was kept; it can be run again.';

/** A step that was begun for a run of a routine, with what it is called there. */
export interface StepOfRun extends Step {
  readonly part: string;
}

/** Steps that were begun for runs of routines, by the numbers of these, each in their order. @param runs those that are wanted; all without it */
export async function stepsOfRuns(
  { query, study }: Store,
  runs?: readonly number[],
): Promise<ReadonlyMap<number, readonly StepOfRun[]>> {
  const all = query.selectFrom('step').selectAll().where('run_id', 'is not', null).orderBy('id');
  const rows = await (runs ? all.where(isAmong('run_id', runs)) : all).execute();
  const found = new Map<number, StepOfRun[]>();
  for (const row of rows) {
    const step = { ...toStep(study, row), part: row.run_part ?? '' };
    found.set(row.run_id!, [...(found.get(row.run_id!) ?? []), step]);
  }
  return found;
}

/** Steps that were running when the process was killed: nothing of them was kept. Returns how many there were. */
export async function markInterrupted({ query }: Store): Promise<number> {
  const result = await query
    .updateTable('step')
    .set({
      state: 'interrupted',
      error: INTERRUPTED,
    })
    .where('state', '=', 'running')
    .executeTakeFirst();
  return Number(result.numUpdatedRows);
}

function toStep(study: string, row: Selectable<StepTable>): Step {
  return {
    id: row.id,
    study,
    kind: row.kind as StepKind,
    state: row.state as StepState,
    parameters: JSON.parse(row.parameters) as Record<string, unknown>,
    result: row.result ? (JSON.parse(row.result) as Record<string, unknown>) : null,
    sentence: row.sentence,
    error: row.error,
    seed: row.seed,
    startedAt: row.started_at,
    endedAt: row.ended_at,
    duration: row.duration,
    ...(row.run_id === null ? {} : { run: row.run_id }),
  };
}
