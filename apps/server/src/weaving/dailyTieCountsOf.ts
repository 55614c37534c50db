import type { Network } from '@pebble/contract';
import type { DailyTieCounts } from '@pebble/core';
import { networkPath } from '../files/places';
import { readTable } from '../storage/files/tables';
import type { Store } from '../storage/open';
import { existsSync } from 'node:fs';
import { evidenceOf } from './evidenceOf';

/** How many messages each tie has on each day: of the messages, or as a package brought it; null where it is not known. */
export async function dailyTieCountsOf(store: Store, network: Network): Promise<DailyTieCounts | null> {
  if (!network.opened) return (await (await evidenceOf(store, network))?.dailyTieCounts()) ?? null;
  if (!existsSync(networkPath(store.folder, network.id, 'days'))) return null;
  const { edge, day, messages } = readTable(store.folder, network.id, 'days');
  return {
    edge: edge as DailyTieCounts['edge'],
    day: day as DailyTieCounts['day'],
    messages: messages as DailyTieCounts['messages'],
  };
}
