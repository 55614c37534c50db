import { lookingAround } from '../common/cost';
import { measure, type Question } from '../question';
import { constraint, localClustering } from './neighbourhood';

export const circle: Question = {
  id: 'circle',
  asks: 'Whose partners know each other?',
  says: 'Closed circles on one side, brokers between circles on the other.',
  misleads: 'With two or three partners chance decides; look at those with more.',
  directedOnly: false,
  twoMode: {
    not: 'In a two-mode network partners of a node are of one sort, and never tied: clustering is always 0.',
  },
  columns: [
    measure(
      'clustering',
      'local clustering',
      'Of all pairs of its partners, the share that is tied itself (Watts & Strogatz 1998); 0 to 1, none with fewer than two partners.',
      'has partners who know each other',
    ),
    measure(
      'constraint',
      'constraint',
      'How much its partners are one and the same circle, by weight (Burt 1992); low for brokers, above 1 in small closed circles, none for isolates.',
      'is held by one circle',
    ),
  ],
  seconds: lookingAround,
  answer: ({ either }) => ({
    columns: { clustering: localClustering(either), constraint: constraint(either) },
  }),
};
