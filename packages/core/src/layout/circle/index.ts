import type { LayoutKind } from '../kind';
import { circle as place } from './circle';

export const circle: LayoutKind = {
  method: 'circle',
  phrase: 'in a circle',
  says: 'All nodes on one circle, ordered for few crossings. For up to some hundred nodes.',
  source: 'ordered by the middles of neighbours',
  goesBy: 'nothing',
  isByChance: false,
  how: { place, isRound: true },
};
