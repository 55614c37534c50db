import type { SharedWeave } from '@pebble/contract';
import { usualMap } from '../common/firstMaps';
import { atLeastOfThem } from '../common/least';
import { SCALED, WEIGHED } from '../common/scales';
import { thingConditions, THING_WORDS, tidiedWith, USES } from '../common/thingWords';
import type { Kind } from '../kind';

/** Accounts tied by the things that they share. */
export const shared: Kind<SharedWeave> = {
  nodes: () => ['account', 'accounts'],
  tie: ({ things }) => `they ${USES[things]} the same ${THING_WORDS[things][1]}`,
  least: (_, least) => atLeastOfThem(least),
  conditions: (weave) => [
    ...(weave.scale === 'count' ? [] : [SCALED[weave.scale]]),
    ...thingConditions(weave),
  ],
  meaning: ({ scale, things }) =>
    scale === 'count'
      ? `A tie of weight 3 between A and B means: three ${THING_WORDS[things][1]} that both use.`
      : WEIGHED[scale],
  title: ({ things }) => `Who uses the same ${things}s`,
  sorts: () => ({ accounts: true, things: null }),
  tidied: ({ things }) => tidiedWith(things),
  firstMap: (_, directed) => usualMap(directed),
  isDense: true,
  hasMessages: true,
  isByAddress: false,
};
