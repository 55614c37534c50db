import {
  TidySort,
  Verdict,
  type Decision,
  type DecisionPage,
  type DecisionQuery,
  type NewDecision,
  type Weave,
} from '@pebble/contract';
import { effective, kindOf } from '@pebble/core';
import { sql, type Selectable, type SqlBool } from 'kysely';
import { isAmong } from './lists';
import type { Store } from './open';
import { readPage } from './pages';
import type { TidyDecisionTable } from './schema';

/** The decisions of a study that hold, in the order in which they were taken. */
export async function readDecisions(
  store: Store,
  sorts: readonly TidySort[] = TidySort.options,
  besides: 'all' | 'without categories' = 'all',
): Promise<Decision[]> {
  const asked = holding(store, sorts);
  const rows = await (
    besides === 'all' ? asked : asked.where(sql<SqlBool>`json_extract(verdict, '$.verdict') <> 'category'`)
  ).execute();
  return rows.map(toDecision);
}

/** A part of them. */
export async function readDecisionPage(
  store: Store,
  { sort, ...page }: DecisionQuery,
): Promise<DecisionPage> {
  const { rows, ...place } = await readPage(holding(store, sort ? [sort] : TidySort.options), page);
  return { ...place, decisions: rows.map(toDecision) };
}

const holding = ({ query }: Store, sorts: readonly TidySort[]) =>
  query
    .selectFrom('tidy_decision')
    .selectAll()
    .where(isAmong('sort', sorts))
    .where('taken_back', '=', 0)
    .orderBy('id');

function toDecision({ id, sort, key, verdict, step_id }: Selectable<TidyDecisionTable>): Decision {
  return { id, sort: TidySort.parse(sort), key, verdict: Verdict.parse(JSON.parse(verdict)), step: step_id };
}

/** Keeps decisions of a step; gives their ids. */
export async function addDecisions(
  { query }: Store,
  step: number,
  sort: TidySort,
  decisions: readonly NewDecision[],
): Promise<number[]> {
  const ids: number[] = [];
  for (const { key, verdict } of decisions) {
    const { id } = await query
      .insertInto('tidy_decision')
      .values({ step_id: step, sort, key, verdict: JSON.stringify(verdict), taken_back: 0 })
      .returning('id')
      .executeTakeFirstOrThrow();
    ids.push(id);
  }
  return ids;
}

/** The decisions with which a network was woven, also those that were taken back since. */
export async function decisionsOf({ query }: Store, network: string): Promise<Decision[]> {
  const { decisions } = await query
    .selectFrom('network')
    .select('decisions')
    .where('id', '=', network)
    .executeTakeFirstOrThrow();
  const ids = JSON.parse(decisions) as number[];
  if (ids.length === 0) return [];
  const rows = await query
    .selectFrom('tidy_decision')
    .selectAll()
    .where(isAmong('id', ids))
    .orderBy('id')
    .execute();
  return rows.map(toDecision);
}

/** The sorts of things whose decisions change what a weave gives. */
function sortsOf(weave: Weave | null): readonly TidySort[] {
  return weave ? kindOf(weave).tidied(weave) : [];
}

/** The decisions that a weave is made with: those that change what stands where. */
export async function decisionsFor(store: Store, weave: Weave): Promise<Decision[]> {
  const sorts = sortsOf(weave);
  if (sorts.length === 0) return [];
  return effective(await readDecisions(store, sorts, 'without categories'));
}
