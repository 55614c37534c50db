import type { LayoutKind } from '../kind';
import { given as place } from './given';

export const given: LayoutKind = {
  method: 'given',
  phrase: 'at given places',
  says: 'By two columns, to the right and downwards, in one scale: distances stay true. Places that were written from a map come back to where they were.',
  source: 'by the values of two columns',
  goesBy: 'two numbers',
  byTwo: (first, second) => `, ${first} and ${second}`,
  isByChance: false,
  how: { place, takesIsolates: true, isExact: true },
};
