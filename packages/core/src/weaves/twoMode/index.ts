import type { TwoModeWeave } from '@pebble/contract';
import { twoModeMap } from '../common/firstMaps';
import { atLeastTimes } from '../common/least';
import { sortsOfThings, thingConditions, THING_WORDS, tidiedWith, USES } from '../common/thingWords';
import type { Kind } from '../kind';

/** Accounts tied to the things they use. */
export const twoMode: Kind<TwoModeWeave> = {
  nodes: ({ things }) => [`account or ${THING_WORDS[things][0]}`, `accounts and ${THING_WORDS[things][1]}`],
  tie: ({ things }) => `one ${USES[things].replace(/^\w+/, '$&s')} the other`,
  least: (_, least) => atLeastTimes(least),
  conditions: thingConditions,
  meaning: ({ things }) =>
    `A tie of weight 3 from an account to a ${THING_WORDS[things][0]} means: it did so in three messages.`,
  title: ({ things }) => `Who uses which ${things}s`,
  sorts: ({ things }) => ({ accounts: true, things: sortsOfThings(things).things }),
  tidied: ({ things }) => tidiedWith(things),
  firstMap: () => twoModeMap,
  isDense: false,
  hasMessages: true,
  isByAddress: false,
};
