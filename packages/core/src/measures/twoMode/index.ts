import { lookingAround } from '../common/cost';
import { measure, type Question } from '../question';
import { degreeBySort, redundancy } from './twoMode';

export const twoMode: Question = {
  id: 'two-mode',
  asks: 'Who is tied to much of the other sort, and who could be spared?',
  says: 'In a two-mode network: the share of the other sort to which a node is tied, and whether its partners meet elsewhere too.',
  misleads: 'A node with two partners is easily redundant; look at the degree beside it.',
  directedOnly: false,
  twoMode: { only: true },
  columns: [
    measure(
      'degreeBySort',
      'degree by sort',
      'Partners over all nodes of the other sort (Borgatti & Everett 1997); 0 to 1.',
      'is tied to much of the other sort',
    ),
    measure(
      'redundancy',
      'redundancy',
      'Of the pairs of its partners the share that is tied through another node too (Latapy, Magnien & Del Vecchio 2008); 0 to 1, none with fewer than two partners.',
      'could be spared: its partners meet elsewhere',
    ),
  ],
  seconds: lookingAround,
  answer: ({ either, sorts, progress }) => {
    const found = redundancy(either, progress);
    return {
      columns: { degreeBySort: degreeBySort(either, sorts ?? []), ...(found ? { redundancy: found } : {}) },
      notes: found ? [] : ['Redundancy was left out: it would take too long in so dense a network.'],
    };
  },
};
