import type { StepDefinition } from './step';

/** Keeps how a map is drawn by a name, to be put on others; the same name is replaced. */
export const keepLook: StepDefinition<'keep-look'> = {
  kind: 'keep-look',
  async run({ store }, { name, look }) {
    const values = { look: JSON.stringify(look) };
    await store.query
      .insertInto('kept_look')
      .values({ name, ...values })
      .onConflict((c) => c.column('name').doUpdateSet(values))
      .execute();
    return {};
  },
  describe: ({ name }) => `The look of the map was kept as “${name}”.`,
};

export const forgetLook: StepDefinition<'forget-look'> = {
  kind: 'forget-look',
  async run({ store }, { name }) {
    await store.query.deleteFrom('kept_look').where('name', '=', name).execute();
    return {};
  },
  describe: ({ name }) => `The kept look “${name}” was forgotten.`,
};
