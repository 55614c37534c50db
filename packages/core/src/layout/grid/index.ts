import type { LayoutKind } from '../kind';
import { grid as place } from './grid';

export const grid: LayoutKind = {
  method: 'grid',
  phrase: 'in rows',
  says: 'Nodes in rows by falling value: an overview that shows no ties well.',
  source: 'by value',
  goesBy: 'a number',
  isByChance: false,
  how: { place, takesIsolates: true },
};
