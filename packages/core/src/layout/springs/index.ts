import { atOnceBegun } from '../common/running';
import type { LayoutKind } from '../kind';
import { Springs } from './springs';

export const springs: LayoutKind = {
  method: 'springs',
  phrase: 'by springs',
  says: 'Ties are springs, nodes push each other away evenly. For up to 3,000 nodes, best for some hundred.',
  source: 'Fruchterman & Reingold 1991',
  goesBy: 'nothing',
  isByChance: true,
  how: { begin: atOnceBegun((graph, { seed }) => new Springs(graph, seed)) },
};
