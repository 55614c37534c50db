import type { StepKind } from '@pebble/contract';
import type { Store } from '../db/open';
import { isUploadOf } from '../files/places';
import { notFound } from './problems';

/** What a request names, beside the study in which it is asked. */
interface Named {
  readonly network?: unknown;
  readonly upload?: unknown;
  readonly more?: unknown;
  readonly weave?: unknown;
  readonly source?: unknown;
  readonly message?: unknown;
  readonly run?: unknown;
  readonly id?: unknown;
}

/**
 * Everything that a step or a question names by its id has to be of the study in which it is asked, and not deleted. Throws ApiError for what
 * is not: as not found, so that nothing is said of other studies.
 */
export function checkOwnThings(
  { raw }: Store,
  study: string,
  kind: StepKind | 'estimate',
  parameters: object,
): void {
  const named: Named = parameters;
  const has = (sql: string, id: unknown): boolean => raw.prepare(sql).get(id, study) !== undefined;
  const alive = kind === 'restore-network' ? '' : 'and deleted_at is null';
  for (const { network } of [named, (named.weave ?? {}) as Named])
    if (
      typeof network === 'string' &&
      !has(`select 1 from network where id = ? and study_id = ? ${alive}`, network)
    )
      throw notFound('This network');
  for (const { upload } of [named, ...((named.more ?? []) as Named[])])
    if (typeof upload === 'string' && !isUploadOf(study, upload)) throw notFound('This uploaded file');
  if (
    typeof named.source === 'number' &&
    !has('select 1 from source where id = ? and study_id = ?', named.source)
  )
    throw notFound('This source');
  if (
    typeof named.message === 'number' &&
    !has('select 1 from message where id = ? and study_id = ?', named.message)
  )
    throw notFound('This message');
  if (
    typeof named.run === 'string' &&
    !has('select 1 from collect_run where id = ? and study_id = ?', named.run)
  )
    throw notFound('This collecting run');
  if (kind === 'forget-filter' && !has('select 1 from saved_filter where id = ? and study_id = ?', named.id))
    throw notFound('This filter');
}
