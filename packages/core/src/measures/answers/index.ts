import { inRows, withoutSelfLoops } from '../../graph/csr';
import { degrees } from '../basics/degree';
import { lookingAround } from '../common/cost';
import { measure, type Question } from '../question';
import { reciprocatedShare } from './reciprocated';

export const answers: Question = {
  id: 'answers',
  asks: 'Who talks with others, and who is only talked to?',
  says: 'How many of the partners of a node are tied with it both ways, and how much it gets for what it gives.',
  misleads: 'What one side says elsewhere, or was not collected, is missing.',
  directedOnly: true,
  twoMode: {
    not: 'In a two-mode network ties lead from one sort to the other, and nothing is ever answered.',
  },
  columns: [
    measure(
      'reciprocated',
      'reciprocated share',
      'Of all its partners, the share with ties both ways; 0 to 1, none for isolates.',
      'talks with its partners',
    ),
    measure(
      'receivedPerSent',
      'received per sent',
      'In-strength over out-strength; 0 and up, none where nothing was sent.',
      'gets more than it gives',
    ),
  ],
  seconds: lookingAround,
  answer: ({ graph, out }) => {
    const { inStrength, outStrength } = degrees(graph);
    return {
      columns: {
        reciprocated: reciprocatedShare(out, withoutSelfLoops(inRows(graph))),
        receivedPerSent: inStrength.map((into, v) => (outStrength[v] > 0 ? into / outStrength[v] : NaN)),
      },
    };
  },
};
