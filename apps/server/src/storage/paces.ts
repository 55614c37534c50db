import type { StepKind } from '@pebble/contract';
import type { Catalogue } from './catalogue';
import { isAmong } from './lists';

/** How long a step of a routine took with what followed it, beside what was expected of it. */
interface Pace {
  readonly kind: StepKind;
  readonly expected: number;
  readonly seconds: number;
}

/** So many of each kind are kept, the newest. */
const KEPT = 20;

/** Writes down how long a step took on this machine. */
export async function notePace({ query }: Catalogue, { kind, expected, seconds }: Pace): Promise<void> {
  await query.insertInto('pace').values({ kind, expected, seconds }).execute();
  const known = await query
    .selectFrom('pace')
    .select('id')
    .where('kind', '=', kind)
    .orderBy('id', 'desc')
    .execute();
  const old = known.slice(KEPT).map(({ id }) => id);
  await query.deleteFrom('pace').where(isAmong('id', old)).execute();
}

/** How many times as long as expected steps of each kind take here: the median of those that are known. */
export async function learnedPaces({ query }: Catalogue): Promise<ReadonlyMap<StepKind, number>> {
  const rows = await query.selectFrom('pace').select(['kind', 'expected', 'seconds']).execute();
  const factors = new Map<StepKind, number[]>();
  for (const { kind, expected, seconds } of rows) {
    const known = factors.get(kind as StepKind) ?? [];
    factors.set(kind as StepKind, [...known, seconds / expected]);
  }
  return new Map([...factors].map(([kind, all]) => [kind, median(all)]));
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
}
