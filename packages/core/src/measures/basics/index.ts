import { searching } from '../common/cost';
import { measure, type Question } from '../question';
import { basicMeasures } from './basicMeasures';

export const basics: Question = {
  id: 'basics',
  asks: 'Who has most ties, and who is addressed most?',
  says: 'Every network has these at once; of a part that is shown they can be computed again.',
  misleads: 'Being shouted at counts like being asked; and one pair can talk all day.',
  directedOnly: false,
  columns: [
    measure(
      'inDegree',
      'in-degree',
      'Other nodes with a tie to it; 0 and up.',
      'is addressed by many others',
    ),
    measure(
      'outDegree',
      'out-degree',
      'Other nodes that it has a tie to; 0 and up.',
      'addresses many others',
    ),
    measure('degree', 'degree', 'Other nodes tied with it; 0 and up.', 'is tied with many others'),
    measure(
      'inStrength',
      'in-strength',
      'Weights of the ties to it, added up; 0 and up.',
      'is addressed often',
    ),
    measure(
      'outStrength',
      'out-strength',
      'Weights of the ties from it, added up; 0 and up.',
      'addresses others often',
    ),
    measure(
      'strength',
      'strength',
      'Weights of all its ties, added up; 0 and up.',
      'has much to do with others',
    ),
    measure(
      'betweenness',
      'betweenness',
      'Share of all pairs of others whose shortest path runs through it, along the direction of ties (Brandes 2001); 0 to 1.',
      'lies between others',
    ),
  ],
  seconds: searching,
  answer: ({ graph, directed, seed, progress }) => {
    const settings = { resolution: 1, runs: 5, seed };
    const found = basicMeasures(graph, settings, (_, share) => progress(share), directed);
    const { component: _component, community: _community, ...columns } = found.columns;
    const notes =
      found.pivots === null
        ? []
        : [`Betweenness was estimated from ${found.pivots} start nodes (Brandes & Pich 2007; seed ${seed}).`];
    return { columns, notes };
  },
};
