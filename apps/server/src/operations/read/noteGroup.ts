import { StepRefused } from '../../errors/stepErrors';
import { findNetwork } from '../../storage/networks';
import { keepGroupNotes } from '../../storage/portraits';
import type { StepDefinition } from '../step';

interface Noted extends Record<string, unknown> {
  readonly network: string;
  readonly column: string;
  readonly group: string;
}

/** Keeps what the researcher writes about a group: its title, a memo, quotations. */
export const noteGroup: StepDefinition<'note-group', Noted> = {
  kind: 'note-group',
  async run({ store }, { network, column, group, notes }) {
    if (!(await findNetwork(store, network))) throw new StepRefused('This network is no longer there.');
    await keepGroupNotes(store, network, column, group, notes);
    return { network, column, group };
  },
  describe: ({ column, group, notes: { title } }) =>
    title
      ? `Group “${group}” of “${column}” was called “${title}”.`
      : `Notes on group “${group}” of “${column}” were kept.`,
};
