import type { LayoutKind } from '../kind';
import { columns as place } from './columns';

export const columns: LayoutKind = {
  method: 'columns',
  phrase: 'in two columns',
  says: 'One column for each sort of nodes, ordered for few crossings. For two-mode networks of up to some hundred nodes.',
  source: 'Sugiyama, Tagawa & Toda 1981',
  goesBy: 'nothing',
  isByChance: false,
  how: { place, isExact: true },
};
