import { atOnceBegun } from '../common/running';
import type { LayoutKind } from '../kind';
import { Stress } from './stress';

export const stress: LayoutKind = {
  method: 'stress',
  phrase: 'by distances',
  says: 'Distances on the page are as many steps as in the network. For up to 3,000 nodes that hang together.',
  source: 'Gansner, Koren & North 2004',
  goesBy: 'nothing',
  isByChance: true,
  how: { begin: atOnceBegun((graph, { seed }) => new Stress(graph, seed)) },
};
