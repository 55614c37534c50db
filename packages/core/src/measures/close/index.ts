import { searching } from '../common/cost';
import { measure, type Question } from '../question';
import { closeness } from './closeness';

export const close: Question = {
  id: 'close',
  asks: 'Who is near to everybody?',
  says: 'How few steps lead from a node to all others, along ties in either direction, whatever their weight.',
  misleads:
    'In a network of several components nobody is near to all: closeness then counts how many are reached at all.',
  directedOnly: false,
  columns: [
    measure(
      'closeness',
      'closeness',
      'Nodes reached, over the sum of their distances, times the share of all others that is reached (Wasserman & Faust 1994); 0 to 1, none for a node that reaches nobody.',
      'reaches the others in few steps',
    ),
    measure(
      'harmonic',
      'harmonic closeness',
      'Mean of 1 / distance to all others, those out of reach counting 0 (Boldi & Vigna 2014); 0 to 1.',
      'reaches the others in few steps',
    ),
  ],
  seconds: searching,
  answer: ({ either, seed, progress }) => {
    const { closeness: near, harmonic, pivots } = closeness(either, { seed, progress });
    const notes =
      pivots === null
        ? []
        : [`Closeness was estimated from ${pivots} start nodes (Eppstein & Wang 2004; seed ${seed}).`];
    return { columns: { closeness: near, harmonic }, notes };
  },
};
