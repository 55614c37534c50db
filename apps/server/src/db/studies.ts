import type { Study, StudyList } from '@pebble/contract';
import type { Store } from './open';

interface StudyRow {
  id: string;
  name: string;
  created_at: string;
  changed_at: string;
  deleted_at: string | null;
  messages: number;
  accounts: number;
  networks: number;
  latest: string | null;
}

export async function listStudies(store: Store): Promise<StudyList> {
  const rows = (await studyQuery(store).orderBy('changed_at', 'desc').execute()) as StudyRow[];
  return {
    studies: rows.filter((row) => row.deleted_at === null).map(toStudy),
    deleted: rows.filter((row) => row.deleted_at !== null).map(toStudy),
  };
}

/** The study, or null when there is none with this id or it was deleted. */
export async function findStudy(store: Store, id: string): Promise<Study | null> {
  const row = (await studyQuery(store)
    .where('id', '=', id)
    .where('deleted_at', 'is', null)
    .executeTakeFirst()) as StudyRow | undefined;
  return row ? toStudy(row) : null;
}

function studyQuery({ query }: Store) {
  return query
    .selectFrom('study')
    .selectAll()
    .select((e) => [
      e
        .selectFrom('message')
        .select((c) => c.fn.countAll<number>().as('n'))
        .whereRef('message.study_id', '=', 'study.id')
        .as('messages'),
      e
        .selectFrom('account')
        .select((c) => c.fn.countAll<number>().as('n'))
        .whereRef('account.study_id', '=', 'study.id')
        .as('accounts'),
      e
        .selectFrom('network')
        .select((c) => c.fn.countAll<number>().as('n'))
        .whereRef('network.study_id', '=', 'study.id')
        .where('network.deleted_at', 'is', null)
        .as('networks'),
      e
        .selectFrom('network')
        .select('network.id')
        .whereRef('network.study_id', '=', 'study.id')
        .where('network.deleted_at', 'is', null)
        .where('network.slice', 'is', null)
        .orderBy('step_id', 'desc')
        .limit(1)
        .as('latest'),
    ]);
}

function toStudy(row: StudyRow): Study {
  return {
    id: row.id,
    name: row.name,
    createdAt: row.created_at,
    changedAt: row.changed_at,
    messages: row.messages,
    accounts: row.accounts,
    networks: row.networks,
    latestNetwork: row.latest,
  };
}
