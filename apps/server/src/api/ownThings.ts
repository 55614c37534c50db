import { existsSync } from 'node:fs';
import type { StepKind } from '@pebble/contract';
import type { Store } from '../storage/open';
import { isFileId, uploadPath } from '../files/places';
import { notFound } from './problems';

/** Tables of what is named by an id, each with the study it is of, by the name of the parameter. */
const TABLES = {
  network: ['network', 'This network'],
  source: ['source', 'This source'],
  message: ['message', 'This message'],
  account: ['account', 'This account'],
  run: ['collect_run', 'This collecting run'],
  plate: ['plate', 'This plate'],
  routineRun: ['routine_run', 'This run'],
} as const;

/** Steps that work on networks that were deleted. */
const OF_DELETED: readonly string[] = ['restore-network', 'remove-for-good'] satisfies StepKind[];

/** What a request names, beside the study in which it is asked. */
interface Named extends Partial<Record<keyof typeof TABLES | 'upload' | 'id', unknown>> {
  readonly networks?: unknown;
  readonly sources?: unknown;
  readonly plates?: unknown;
  readonly sample?: unknown;
  readonly code?: unknown;
  /** What a sample is drawn from. */
  readonly from?: Named;
  readonly audience?: Named;
  readonly more?: readonly Named[];
  readonly weave?: Named;
}

/**
 * Everything that a step or a question names by its id has to be of the study in which it is asked, and not deleted. Throws ApiError for what
 * is not: as not found, so that nothing is said of other studies.
 */
export function checkOwnThings(
  { raw, folder }: Store,
  kind: StepKind | 'estimate' | 'comparison',
  parameters: object,
): void {
  const check = (table: string, id: unknown, what: string): void => {
    const alive = table === 'network' && !OF_DELETED.includes(kind) ? 'and deleted_at is null' : '';
    const row = raw.prepare(`select 1 from ${table} where id = ? ${alive}`).get(id);
    if (row === undefined) throw notFound(what);
  };
  const named: Named = parameters;
  for (const part of [
    named,
    named.weave ?? {},
    named.from ?? {},
    named.audience ?? {},
    ...(named.more ?? []),
  ]) {
    for (const name of Object.keys(TABLES) as (keyof typeof TABLES)[])
      if (part[name] !== undefined && part[name] !== null)
        check(TABLES[name][0], part[name], TABLES[name][1]);
    if (typeof part.upload === 'string') checkUpload(folder, part.upload);
  }
  for (const [list, table, what] of [
    [named.networks, ...TABLES.network],
    [named.sources, ...TABLES.source],
    [named.plates, ...TABLES.plate],
  ] as const)
    if (Array.isArray(list)) for (const id of list) check(table, id, what);
  if (named.sample !== undefined) check('sample', named.sample, 'This sample');
  if (named.code !== undefined) check('code', named.code, 'This code');
  if (kind === 'forget-moment') check('moment', named.id, 'This moment');
  if (kind === 'forget-filter') check('saved_filter', named.id, 'This filter');
}

/** A file that was sent to a study lies in its folder. */
export function checkUpload(folder: string, id: string): void {
  if (!isFileId(id) || !existsSync(uploadPath(folder, id))) throw notFound('This uploaded file');
}
