import type { LayoutKind } from '../kind';
import { rings as place } from './rings';

export const rings: LayoutKind = {
  method: 'rings',
  phrase: 'in rings',
  says: 'The highest values in the middle, lower ones farther out. Shows core and rim; nearness on the page says little else.',
  source: 'rings by value; directions by few crossings',
  goesBy: 'a number',
  isByChance: false,
  how: { place, isRound: true },
};
