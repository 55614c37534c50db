import type { LayoutKind } from '../kind';
import { roundOne as place } from './roundOne';

export const roundOne: LayoutKind = {
  method: 'round-one',
  phrase: 'round one node',
  says: 'One node in the middle: on its left who has ties to it, on its right whom it has ties to, above who has both; the strongest nearest. All others stand outside, in the direction of those that they are tied to.',
  source: 'common practice for the network of one person',
  goesBy: 'nothing',
  isByChance: false,
  how: { place, isRound: true },
};
