import type { StepKind, StepRequest } from '@pebble/contract';
import type { Store } from './open';

/** A step that follows another one by itself, until it has ended. */
export interface FollowUp {
  readonly id: number;
  readonly request: StepRequest;
}

/** One that could not be brought to its end so often is left: it may be what ends the application. */
const MOST_BEGINNINGS = 3;

/** Keeps what is to follow a step, in one transaction with the end of that step, so that it follows also after a kill. */
export async function keepFollowUps({ query }: Store, requests: readonly StepRequest[]): Promise<FollowUp[]> {
  const kept: FollowUp[] = [];
  for (const request of requests) {
    const { id } = await query
      .insertInto('follow_up')
      .values({
        kind: request.kind,
        parameters: JSON.stringify(request.parameters),
        beginnings: 0,
      })
      .returning('id')
      .executeTakeFirstOrThrow();
    kept.push({ id, request });
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

/** What was to follow when the application was ended, in its order; what was begun too often is left out for good. */
export async function leftFollowUps({ query }: Store): Promise<FollowUp[]> {
  await query.deleteFrom('follow_up').where('beginnings', '>=', MOST_BEGINNINGS).execute();
  const rows = await query.selectFrom('follow_up').selectAll().orderBy('id').execute();
  return rows.map(({ id, kind, parameters }) => ({
    id,
    request: { kind: kind as StepKind, parameters: JSON.parse(parameters) as Record<string, unknown> },
  }));
}
