import { atOnceBegun } from '../common/running';
import type { LayoutKind } from '../kind';
import { FewCrossings } from './fewCrossings';

export const fewCrossings: LayoutKind = {
  method: 'few-crossings',
  phrase: 'with few crossings',
  says: 'As few ties cross as are found. For up to 60 nodes that hang together.',
  source: 'in the manner of Davidson & Harel 1996',
  goesBy: 'nothing',
  isByChance: true,
  how: { begin: atOnceBegun((graph, { seed }) => new FewCrossings(graph, seed)) },
};
