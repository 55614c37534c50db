import { forgetKeptLook, keepKeptLook } from '../../storage/looks';
import type { StepDefinition } from '../step';

/** Keeps how a map is drawn by a name, to be put on others; the same name is replaced. */
export const keepLook: StepDefinition<'keep-look'> = {
  kind: 'keep-look',
  async run({ shared }, { name, look }) {
    await shared((catalogue) => keepKeptLook(catalogue, { name, look }));
    return {};
  },
  describe: ({ name }) => `The look of the map was kept as “${name}”.`,
};

export const forgetLook: StepDefinition<'forget-look'> = {
  kind: 'forget-look',
  async run({ shared }, { name }) {
    await shared((catalogue) => forgetKeptLook(catalogue, name));
    return {};
  },
  describe: ({ name }) => `The kept look “${name}” was forgotten.`,
};
