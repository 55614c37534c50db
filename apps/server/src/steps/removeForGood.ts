import { join } from 'node:path';
import { counted, joinWith } from '@pebble/core';
import { sql } from 'kysely';
import { eraseMessages, eraseParkedAccounts, eraseUnused } from '../db/erase/eraseMessages';
import { isAmong } from '../db/lists';
import { skippedPath } from '../files/places';
import { StepRefused, type StepContext, type StepDefinition } from './step';

interface Removed extends Record<string, unknown> {
  readonly networks: number;
  readonly sources: number;
  /** Messages of these sources. */
  readonly messages: number;
}

/** Removes what was deleted, or taken out, before: it cannot be taken back any more, and its room on the disk is free. */
export const removeForGood: StepDefinition<'remove-for-good', Removed> = {
  kind: 'remove-for-good',
  erases: true,
  async run(context, { networks, sources }, progress) {
    progress('Removing', null);
    await removeNetworks(context, networks);
    let messages = 0;
    for (const [i, source] of sources.entries()) {
      progress('Removing messages', i / sources.length);
      messages += await removeSource(context, source);
    }
    if (sources.length > 0) {
      await eraseParkedAccounts(context.store);
      await eraseUnused(context.store);
    }
    return { networks: networks.length, sources: sources.length, messages };
  },
  describe({ networks, sources }, result) {
    const parts = [
      ...(networks.length > 0 ? [counted(networks.length, 'deleted network')] : []),
      ...(sources.length > 0
        ? [
            `${counted(sources.length, 'source')} that ${sources.length === 1 ? 'was' : 'were'} taken out${result ? ` with ${counted(result.messages, 'message')}` : ''}`,
          ]
        : []),
    ];
    return `${joinWith('and', parts)} ${networks.length + sources.length === 1 ? 'was' : 'were'} removed for good.`;
  },
};

async function removeNetworks({ store, files }: StepContext, ids: readonly string[]): Promise<void> {
  const found = await store.query
    .selectFrom('network')
    .select('id')
    .where(isAmong('id', ids))
    .where('deleted_at', 'is not', null)
    .execute();
  if (found.length < new Set(ids).size)
    throw new StepRefused('Only networks that were deleted can be removed for good. Nothing was removed.');
  await store.query.deleteFrom('map').where(isAmong('network_id', ids)).execute();
  await store.query.deleteFrom('network').where(isAmong('id', ids)).execute();
  for (const id of ids) files.remove(join(store.folder, 'networks', id));
}

async function removeSource({ store, files }: StepContext, id: number): Promise<number> {
  const { query } = store;
  const source = await query
    .selectFrom('source')
    .select('step_id')
    .where('id', '=', id)
    .where('removed_at', 'is not', null)
    .executeTakeFirst();
  if (!source)
    throw new StepRefused('Only sources that were taken out can be removed for good. Nothing was removed.');
  const messages = await eraseMessages(store, 'parked_message', sql`source_id = ${id}`);
  for (const table of ['parked_item', 'parked_follow', 'parked_profile'] as const)
    await query.deleteFrom(table).where('source_id', '=', id).execute();
  await query.updateTable('collect_run').set({ source_id: null }).where('source_id', '=', id).execute();
  await query.deleteFrom('source').where('id', '=', id).execute();
  files.remove(skippedPath(store.folder, source.step_id));
  return messages;
}
