import type { StepDefinition } from '../step';

export const createStudy: StepDefinition<'create-study'> = {
  kind: 'create-study',
  beginsStudy: true,
  async run({ store, now }, { name }) {
    await store.query
      .insertInto('study')
      .values({ name, created_at: now, changed_at: now, deleted_at: null, archived_at: null })
      .execute();
    return {};
  },
  describe: ({ name }) => `The study “${name}” was begun.`,
};

export const renameStudy: StepDefinition<'rename-study'> = {
  kind: 'rename-study',
  async run({ store }, { name }) {
    await store.query.updateTable('study').set({ name }).execute();
    return {};
  },
  describe: ({ name, before }) => `The study “${before}” was renamed “${name}”.`,
};

export const deleteStudy: StepDefinition<'delete-study'> = {
  kind: 'delete-study',
  async run({ store, now }) {
    await store.query.updateTable('study').set({ deleted_at: now }).execute();
    return {};
  },
  describe: () => 'The study was deleted; it can be taken back.',
};

export const restoreStudy: StepDefinition<'restore-study'> = {
  kind: 'restore-study',
  async run({ store }) {
    await store.query.updateTable('study').set({ deleted_at: null, archived_at: null }).execute();
    return {};
  },
  describe: () => 'The deleted study was taken back.',
};
