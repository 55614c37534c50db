import type { StepKind, StepRequest } from '@pebble/contract';
import type { Store } from './open';

/** A step that follows another one by itself, until it has ended. */
export interface FollowUp {
  readonly id: number;
  readonly study: string;
  readonly request: StepRequest;
}

/** One that could not be brought to its end so often is left: it may be what ends the application. */
const MOST_BEGINNINGS = 3;

/** Keeps what is to follow a step, in one transaction with the end of that step, so that it follows also after a kill. */
export async function keepFollowUps(
  { query }: Store,
  study: string,
  requests: readonly StepRequest[],
): Promise<FollowUp[]> {
  const kept: FollowUp[] = [];
  for (const request of requests) {
    const { id } = await query
      .insertInto('follow_up')
      .values({
        study_id: study,
        kind: request.kind,
        parameters: JSON.stringify(request.parameters),
        beginnings: 0,
      })
      .returning('id')
      .executeTakeFirstOrThrow();
    kept.push({ id, study, request });
  }
  return kept;
}

export async function countBeginning({ query }: Store, id: number): Promise<void> {
  await query
    .updateTable('follow_up')
    .set((e) => ({ beginnings: e('beginnings', '+', 1) }))
    .where('id', '=', id)
    .execute();
}

export async function forgetFollowUp({ query }: Store, id: number): Promise<void> {
  await query.deleteFrom('follow_up').where('id', '=', id).execute();
}

/** What was to follow when the application was ended, in its order; what was begun too often, or is of a deleted study, is left out for good. */
export async function leftFollowUps({ query }: Store): Promise<FollowUp[]> {
  await query
    .deleteFrom('follow_up')
    .where(({ eb, or, not, exists, selectFrom }) =>
      or([
        eb('beginnings', '>=', MOST_BEGINNINGS),
        not(
          exists(
            selectFrom('study')
              .select('study.id')
              .whereRef('study.id', '=', 'follow_up.study_id')
              .where('study.deleted_at', 'is', null),
          ),
        ),
      ]),
    )
    .execute();
  const rows = await query.selectFrom('follow_up').selectAll().orderBy('id').execute();
  return rows.map(({ id, study_id, kind, parameters }) => ({
    id,
    study: study_id,
    request: { kind: kind as StepKind, parameters: JSON.parse(parameters) as Record<string, unknown> },
  }));
}
