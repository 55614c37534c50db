import { join } from 'node:path';
import { counted, joinWith } from '@pebble/core';
import { eraseNetworks, erasePlates, eraseSource } from '../../storage/erase/eraseDeleted';
import { eraseParkedAccounts, eraseUnused } from '../../storage/erase/eraseMessages';
import { erasePortraits } from '../../storage/portraits';
import { skippedPath } from '../../files/places';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Removed extends Record<string, unknown> {
  readonly networks: number;
  readonly sources: number;
  readonly plates: number;
  /** Messages of these sources. */
  readonly messages: number;
}

/** Removes what was deleted, or taken out, before: it cannot be taken back any more, and its room on the disk is free. */
export const removeForGood: StepDefinition<'remove-for-good', Removed> = {
  kind: 'remove-for-good',
  erases: true,
  async run(context, { networks, sources, plates }, progress) {
    progress('Removing', null);
    const { store, files } = context;
    if (!(await eraseNetworks(store, networks)))
      throw new StepRefused('Only networks that were deleted can be removed for good. Nothing was removed.');
    for (const id of networks) files.remove(join(store.folder, 'networks', id));
    if (!(await erasePlates(store, plates)))
      throw new StepRefused('Only plates that were deleted can be removed for good. Nothing was removed.');
    let messages = 0;
    for (const [i, source] of sources.entries()) {
      progress('Removing messages', i / sources.length);
      const erased = await eraseSource(store, source);
      if (!erased)
        throw new StepRefused(
          'Only sources that were taken out can be removed for good. Nothing was removed.',
        );
      files.remove(skippedPath(store.folder, erased.step));
      messages += erased.messages;
    }
    if (sources.length > 0) {
      await erasePortraits(store);
      await eraseParkedAccounts(store);
      await eraseUnused(store);
    }
    return { networks: networks.length, sources: sources.length, plates: plates.length, messages };
  },
  describe({ networks, sources, plates }, result) {
    const parts = [
      ...(networks.length > 0 ? [counted(networks.length, 'deleted network')] : []),
      ...(sources.length > 0
        ? [
            `${counted(sources.length, 'source')} that ${sources.length === 1 ? 'was' : 'were'} taken out${result ? ` with ${counted(result.messages, 'message')}` : ''}`,
          ]
        : []),
      ...(plates.length > 0 ? [counted(plates.length, 'deleted plate')] : []),
    ];
    return `${joinWith('and', parts)} ${networks.length + sources.length + plates.length === 1 ? 'was' : 'were'} removed for good.`;
  },
};
