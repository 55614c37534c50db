import { counted } from '@pebble/core';
import { StepRefused } from '../../errors/stepErrors';
import { findNetwork } from '../../storage/networks';
import { allowedPhrase } from '../export/allowedPhrase';
import type { StepDefinition } from '../step';

const FORMATS = { html: 'HTML', md: 'Markdown', csv: 'CSV' } as const;

/** Writes down that portraits were saved; the file is made where they are read. */
export const exportPortraits: StepDefinition<'export-portraits'> = {
  kind: 'export-portraits',
  async run({ store }, { network, groups }) {
    if (!(await findNetwork(store, network))) throw new StepRefused('This network is no longer there.');
    return { groups: groups.length };
  },
  describe: ({ column, groups, format, allowed }) =>
    `Portraits of ${counted(groups.length, 'group')} of “${column}” were saved as ${FORMATS[format]}.${allowedPhrase(allowed)}`,
};
