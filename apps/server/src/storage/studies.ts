import type { Store } from './open';

/** What the list of studies says of one. */
export interface StudyCard {
  readonly name: string;
  readonly createdAt: string;
  readonly changedAt: string;
  readonly deletedAt: string | null;
  /** Whether it was packed and closed. */
  readonly isArchived: boolean;
  readonly messages: number;
  readonly accounts: number;
  readonly networks: number;
  readonly latestNetwork: string | null;
}

/** Null for one that was never begun: whoever began it was killed before it was there. */
export async function readCard({ query }: Store): Promise<StudyCard | null> {
  const study = await query.selectFrom('study').selectAll().executeTakeFirst();
  if (!study) return null;
  const count = async (table: 'message' | 'account'): Promise<number> =>
    (
      await query
        .selectFrom(table)
        .select((e) => e.fn.countAll<number>().as('n'))
        .executeTakeFirstOrThrow()
    ).n;
  const networks = await query
    .selectFrom('network')
    .select(['id', 'slice'])
    .where('deleted_at', 'is', null)
    .orderBy('step_id', 'desc')
    .execute();
  return {
    name: study.name,
    createdAt: study.created_at,
    changedAt: study.changed_at,
    deletedAt: study.deleted_at,
    isArchived: study.archived_at !== null,
    messages: await count('message'),
    accounts: await count('account'),
    networks: networks.length,
    latestNetwork: networks.find(({ slice }) => slice === null)?.id ?? null,
  };
}
