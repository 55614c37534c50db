import type { AccountWeave } from '@pebble/contract';
import { leftNote, takenAddresses, tidyAddresses, weaveAccounts, whatEmptiesAccounts } from '@pebble/core';
import { readAddresses } from '../../storage/addresses';
import { decisionsOf } from '../../storage/decisions';
import { readTaken } from '../../storage/taken';
import { accountEvidence } from '../evidence/ofAccounts';
import type { StudyKind } from './kind';

/** Accounts tied by who addresses whom: their messages are told by the rule by which they were woven. */
export const accounts: StudyKind<AccountWeave> = {
  count({ store, weave, tidy }) {
    const isTaken = readTaken(store, weave);
    const all = readAddresses(store);
    const { rows: taken, left } = isTaken ? takenAddresses(all, isTaken) : { rows: all, left: 0 };
    const rows = tidyAddresses(taken, tidy.now);
    const woven = weaveAccounts(rows, weave);
    return {
      woven: { ...woven, notes: [...leftNote(left), ...woven.notes] },
      labelOf: (account) => tidy.labels.get(account) ?? '',
      keyOf: null,
      emptiedBy:
        rows.count === 0 && left > 0
          ? 'No message is left by the choice of messages.'
          : whatEmptiesAccounts(rows, weave, woven.droppedBelowThreshold),
    };
  },
  evidence: async (store, network, weave) =>
    accountEvidence(store, network, weave, await decisionsOf(store, network.id)),
};
