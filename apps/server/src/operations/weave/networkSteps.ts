import type { StepDefinition } from '../step';

export const renameNetwork: StepDefinition<'rename-network'> = {
  kind: 'rename-network',
  async run({ store }, { network, name }) {
    await store.query.updateTable('network').set({ name }).where('id', '=', network).execute();
    return {};
  },
  describe: ({ name }) => `A network was named “${name}”.`,
};

export const deleteNetwork: StepDefinition<'delete-network'> = {
  kind: 'delete-network',
  async run({ store, now }, { network }) {
    await store.query.updateTable('network').set({ deleted_at: now }).where('id', '=', network).execute();
    return {};
  },
  describe: () => 'A network was deleted; it can be taken back.',
};

export const restoreNetwork: StepDefinition<'restore-network'> = {
  kind: 'restore-network',
  async run({ store }, { network }) {
    await store.query.updateTable('network').set({ deleted_at: null }).where('id', '=', network).execute();
    return {};
  },
  describe: () => 'A deleted network was taken back.',
};
