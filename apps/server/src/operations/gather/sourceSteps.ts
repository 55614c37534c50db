import { formatCount } from '@pebble/core';
import { parkSource, unparkSource } from '../../storage/parkSource';
import { StepRefused } from '../../errors/stepErrors';
import type { StepContext, StepDefinition } from '../step';

export const removeSource: StepDefinition<'remove-source', { messages: number }> = {
  kind: 'remove-source',
  async run(context, { source }, progress) {
    await mark(context, source, context.now);
    progress('Taking the source out', null);
    return { messages: await parkSource(context.store, source) };
  },
  describe: ({ name }, result) =>
    `The source ${name} was taken out${result ? ` with its ${formatCount(result.messages)} messages` : ''}; it can be taken back.`,
};

export const restoreSource: StepDefinition<'restore-source', { messages: number; again: number }> = {
  kind: 'restore-source',
  async run(context, { source }, progress) {
    await mark(context, source, null);
    progress('Taking the source back', null);
    return unparkSource(context.store, source);
  },
  describe({ name }, result) {
    if (!result) return `The source ${name} was to be taken back.`;
    const again =
      result.again > 0
        ? `; ${formatCount(result.again)} of its messages have come again from another source and stay as they are there`
        : '';
    return `The source ${name} was taken back with ${formatCount(result.messages)} messages${again}.`;
  },
};

async function mark({ store, now }: StepContext, source: number, removedAt: string | null): Promise<void> {
  const changed = await store.query
    .updateTable('source')
    .set({ removed_at: removedAt })
    .where('id', '=', source)
    .where('removed_at', removedAt === null ? 'is not' : 'is', null)
    .executeTakeFirst();
  if (changed.numUpdatedRows === 0n)
    throw new StepRefused(
      removedAt === null ? 'This source is in the study already.' : 'This source is no longer in the study.',
    );
  await store.query.updateTable('study').set({ changed_at: now }).execute();
}
