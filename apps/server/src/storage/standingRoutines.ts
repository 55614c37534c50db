import {
  Routine,
  RoutineAnswers,
  StandingWhen,
  type NewStandingRoutine,
  type RunState,
  type StandingRoutine,
  type StepKind,
} from '@pebble/contract';
import type { Selectable } from 'kysely';
import type { Store } from './open';
import type { StandingRoutineTable } from './schema';

/** A standing routine with the newest step of which it knows. */
export interface KeptStanding extends StandingRoutine {
  readonly seenStep: number;
}

export async function keepStanding(
  store: Store,
  { routine, answers, when }: NewStandingRoutine,
  next: string | null,
): Promise<StandingRoutine> {
  const { id } = await store.query
    .insertInto('standing_routine')
    .values({
      routine: JSON.stringify(routine),
      answers: JSON.stringify(answers),
      fires: JSON.stringify(when),
      is_on: 1,
      seen_step: await lastStep(store),
      next_at: next,
      waits_for: null,
      last_run: null,
      note: null,
      created_at: new Date().toISOString(),
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  return (await findStanding(store, id))!;
}

/** The newest first. */
export async function listStanding({ query, study }: Store): Promise<KeptStanding[]> {
  const rows = await query.selectFrom('standing_routine').selectAll().orderBy('id', 'desc').execute();
  return rows.map((row) => toStanding(study, row));
}

export async function findStanding({ query, study }: Store, id: number): Promise<KeptStanding | null> {
  const row = await query.selectFrom('standing_routine').selectAll().where('id', '=', id).executeTakeFirst();
  return row ? toStanding(study, row) : null;
}

export async function changeStanding(
  { query }: Store,
  id: number,
  {
    isOn,
    when,
    seenStep,
    ...change
  }: Partial<Pick<KeptStanding, 'isOn' | 'when' | 'seenStep' | 'next' | 'waitsFor' | 'lastRun' | 'note'>>,
): Promise<void> {
  const { next, waitsFor, lastRun, note } = change;
  await query
    .updateTable('standing_routine')
    .set({
      ...(isOn === undefined ? {} : { is_on: isOn ? 1 : 0 }),
      ...(when === undefined ? {} : { fires: JSON.stringify(when) }),
      ...(seenStep === undefined ? {} : { seen_step: seenStep }),
      ...(next === undefined ? {} : { next_at: next }),
      ...(waitsFor === undefined ? {} : { waits_for: waitsFor }),
      ...(lastRun === undefined ? {} : { last_run: lastRun }),
      ...(note === undefined ? {} : { note }),
    })
    .where('id', '=', id)
    .execute();
}

/** Whether there was one. */
export async function forgetStanding({ query }: Store, id: number): Promise<boolean> {
  const { numDeletedRows } = await query
    .deleteFrom('standing_routine')
    .where('id', '=', id)
    .executeTakeFirst();
  return numDeletedRows > 0n;
}

/** The number of the newest step. */
export async function lastStep({ query }: Store): Promise<number> {
  const { last } = await query
    .selectFrom('step')
    .select(({ fn }) => fn.max('id').as('last'))
    .executeTakeFirstOrThrow();
  return last ?? 0;
}

/** Whether something was taken in after a step, otherwise than by a run of a routine. */
export async function cameAfter(
  { query }: Store,
  step: number,
  kind: Extract<StepKind, 'import-source' | 'collect-source'>,
): Promise<boolean> {
  const came = await query
    .selectFrom('step')
    .select('id')
    .where('id', '>', step)
    .where('kind', '=', kind)
    .where('state', '=', 'done')
    .where('run_id', 'is', null)
    .limit(1)
    .executeTakeFirst();
  return came !== undefined;
}

/** What became of a collecting run; null where it was forgotten. */
export async function stateOfCollecting({ query }: Store, run: string): Promise<RunState | null> {
  const row = await query.selectFrom('collect_run').select('state').where('id', '=', run).executeTakeFirst();
  return (row?.state as RunState | undefined) ?? null;
}

function toStanding(study: string, row: Selectable<StandingRoutineTable>): KeptStanding {
  return {
    id: row.id,
    study,
    routine: Routine.parse(JSON.parse(row.routine)),
    answers: RoutineAnswers.parse(JSON.parse(row.answers)),
    when: StandingWhen.parse(JSON.parse(row.fires)),
    isOn: row.is_on === 1,
    seenStep: row.seen_step,
    next: row.next_at,
    waitsFor: row.waits_for,
    lastRun: row.last_run,
    note: row.note,
    createdAt: row.created_at,
  };
}
