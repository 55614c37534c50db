import type { ProjectionWeave } from '@pebble/contract';
import { formatCount } from '../../words/sentence';
import { mapBy } from '../common/firstMaps';
import { atLeastOfThem } from '../common/least';
import { SCALED, WEIGHED } from '../common/scales';
import type { Kind } from '../kind';
import { sortWords } from './words';

export { sortsIn } from './make';

/** One sort of nodes of a two-mode network, tied by what they share of the other. */
export const projection: Kind<ProjectionWeave> = {
  nodes: ({ sort }) => sortWords(sort),
  tie: () => 'they share nodes of the other sort',
  least: (_, least) => atLeastOfThem(least),
  conditions: ({ scale, partnersAtLeast }) => [
    ...(scale === 'count' ? [] : [SCALED[scale]]),
    ...(partnersAtLeast > 1 ? [`each tied to at least ${formatCount(partnersAtLeast)}`] : []),
  ],
  meaning: ({ scale }) =>
    scale === 'count'
      ? 'A tie of weight 3 between A and B means: they share three nodes of the other sort.'
      : WEIGHED[scale],
  title: ({ sort }) => `Which ${sortWords(sort)[1]} meet`,
  sorts: () => ({ accounts: false, things: null }),
  tidied: () => [],
  firstMap: () => mapBy('partners', 'partners'),
  isDense: true,
  hasMessages: true,
  isByAddress: false,
};
