import type { StepKind } from '@pebble/contract';
import type { Store } from '../storage/open';

/**
 * Seconds for each kind of step with what follows it: at least, and for each thousand messages. Measured with two cores on 200,000 posts by
 * 60,000 accounts that became a network of 50,000 nodes and 228,000 ties; other kinds are short beside these. What is measured on the machine
 * where it runs makes them longer or shorter.
 */
const COSTS: Partial<Record<StepKind, readonly [least: number, perThousand: number]>> = {
  'import-source': [0.5, 0.045],
  weave: [1, 0.165],
  'arrange-map': [0.3, 0.115],
};
const USUAL = [0.2, 0.003] as const;

/** Seconds that a step is expected to take with so many messages, before anything was measured here. */
export function expectedSeconds(kind: StepKind, messages: number): number {
  const [least, perThousand] = COSTS[kind] ?? USUAL;
  return least + (perThousand * messages) / 1000;
}

export async function countMessages({ query }: Store): Promise<number> {
  const there = await query
    .selectFrom('message')
    .select(({ fn }) => fn.countAll<number>().as('count'))
    .executeTakeFirstOrThrow();
  return Number(there.count);
}
