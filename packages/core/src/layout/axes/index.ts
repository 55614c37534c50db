import type { LayoutKind } from '../kind';
import { axes as place } from './axes';

export const axes: LayoutKind = {
  method: 'axes',
  phrase: 'by two axes',
  says: 'Left to right by one number, upwards by another. Places mean something; ties are only seen beside.',
  source: 'by the values of two columns',
  goesBy: 'two numbers',
  isByChance: false,
  how: { place, takesIsolates: true },
};
