import type { LayoutKind } from '../kind';
import { islands as place } from './islands';

export const islands: LayoutKind = {
  method: 'islands',
  phrase: 'as islands',
  says: 'Each group by itself, islands near each other where they are much tied. Shows groups more than what is between them.',
  source: 'groups by attraction, each in its own space',
  goesBy: 'groups',
  isByChance: true,
  how: { place },
};
