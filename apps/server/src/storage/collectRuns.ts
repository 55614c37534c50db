import {
  CollectPlan,
  CollectRun,
  RunCounts,
  Service,
  type CollectRunPage,
  type PageQuery,
  type RunState,
} from '@pebble/contract';
import type { Selectable, Updateable } from 'kysely';
import { isAmong } from './lists';
import type { Store } from './open';
import { readPage } from './pages';
import type { CollectRunTable } from './schema';

/** A run with the place up to which it has come. */
export interface StoredRun extends CollectRun {
  readonly place: unknown;
  readonly spoolBytes: number;
  readonly serviceState: string | null;
  readonly endedByHand: boolean;
}

/** The runs of a study, the newest first. */
export async function listRuns(store: Store): Promise<CollectRun[]> {
  const rows = await newestFirst(store).execute();
  return rows.map((row) => CollectRun.parse(toRun(store.study, row)));
}

export async function readRuns(store: Store, page: PageQuery): Promise<CollectRunPage> {
  const { rows, ...place } = await readPage(newestFirst(store), page);
  return { ...place, runs: rows.map((row) => CollectRun.parse(toRun(store.study, row))) };
}

const newestFirst = ({ query }: Store) =>
  query.selectFrom('collect_run').selectAll().orderBy('created_at', 'desc').orderBy('id');

/** A run in these states was at work when the application ended. */
export const UNFINISHED: readonly RunState[] = ['running', 'waiting', 'storing'];

/** Runs that were at work when the application stopped. */
export async function unfinishedRuns({ query, study }: Store): Promise<StoredRun[]> {
  const rows = await query
    .selectFrom('collect_run')
    .selectAll()
    .where(isAmong('state', UNFINISHED))
    .orderBy('created_at')
    .execute();
  return rows.map((row) => toRun(study, row));
}

export async function findRun({ query, study }: Store, id: string): Promise<StoredRun | null> {
  const row = await query.selectFrom('collect_run').selectAll().where('id', '=', id).executeTakeFirst();
  return row ? toRun(study, row) : null;
}

export async function insertRun({ query }: Store, run: StoredRun): Promise<void> {
  await query
    .insertInto('collect_run')
    .values({
      id: run.id,
      name: run.name,
      service: JSON.stringify(run.service),
      plan: JSON.stringify(run.plan),
      counts: JSON.stringify(run.counts),
      notes: JSON.stringify(run.notes),
      state: run.state,
      place: run.place === null ? null : JSON.stringify(run.place),
      spool_bytes: run.spoolBytes,
      share: run.share,
      wait_until: run.waitUntil,
      error: run.error,
      source_id: run.source,
      previous: run.previous,
      service_state: run.serviceState,
      ended_by_hand: run.endedByHand ? 1 : 0,
      created_at: run.createdAt,
      ended_at: run.endedAt,
    })
    .execute();
}

/** Writes the given parts of a run; the others stay as they are. */
export async function updateRun(
  { query }: Store,
  id: string,
  part: Partial<
    Pick<
      StoredRun,
      | 'state'
      | 'counts'
      | 'notes'
      | 'place'
      | 'spoolBytes'
      | 'share'
      | 'waitUntil'
      | 'error'
      | 'source'
      | 'endedAt'
      | 'serviceState'
      | 'endedByHand'
    >
  >,
): Promise<void> {
  const values: Updateable<CollectRunTable> = {
    ...(part.state === undefined ? {} : { state: part.state }),
    ...(part.counts === undefined ? {} : { counts: JSON.stringify(part.counts) }),
    ...(part.notes === undefined ? {} : { notes: JSON.stringify(part.notes) }),
    ...(part.place === undefined ? {} : { place: JSON.stringify(part.place) }),
    ...(part.spoolBytes === undefined ? {} : { spool_bytes: part.spoolBytes }),
    ...(part.share === undefined ? {} : { share: part.share }),
    ...(part.waitUntil === undefined ? {} : { wait_until: part.waitUntil }),
    ...(part.error === undefined ? {} : { error: part.error }),
    ...(part.source === undefined ? {} : { source_id: part.source }),
    ...(part.serviceState === undefined ? {} : { service_state: part.serviceState }),
    ...(part.endedByHand === undefined ? {} : { ended_by_hand: part.endedByHand ? 1 : 0 }),
    ...(part.endedAt === undefined ? {} : { ended_at: part.endedAt }),
  };
  if (Object.keys(values).length > 0)
    await query.updateTable('collect_run').set(values).where('id', '=', id).execute();
}

export async function deleteRun({ query }: Store, id: string): Promise<void> {
  await query.deleteFrom('collect_run').where('id', '=', id).execute();
}

/** The source that a run's collecting step made; null when the step was not done. */
export async function sourceOfRun({ query }: Store, run: string): Promise<number | null> {
  const steps = await query
    .selectFrom('step')
    .select(['parameters', 'result'])
    .where('kind', '=', 'collect-source')
    .where('state', '=', 'done')
    .execute();
  const step = steps.find(({ parameters }) => (JSON.parse(parameters) as { run: string }).run === run);
  return step?.result ? (JSON.parse(step.result) as { source: number }).source : null;
}

function toRun(study: string, row: Selectable<CollectRunTable>): StoredRun {
  return {
    id: row.id,
    study,
    name: row.name,
    service: Service.parse(JSON.parse(row.service)),
    plan: CollectPlan.parse(JSON.parse(row.plan)),
    counts: RunCounts.parse(JSON.parse(row.counts)),
    notes: JSON.parse(row.notes) as string[],
    state: row.state as RunState,
    place: row.place === null ? null : (JSON.parse(row.place) as unknown),
    spoolBytes: row.spool_bytes,
    share: row.share,
    waitUntil: row.wait_until,
    error: row.error,
    source: row.source_id,
    previous: row.previous,
    serviceState: row.service_state,
    endedByHand: row.ended_by_hand === 1,
    createdAt: row.created_at,
    endedAt: row.ended_at,
  };
}
