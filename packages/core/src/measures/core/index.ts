import { coreNumbers } from '../../graph/cores';
import { lookingAround } from '../common/cost';
import { measure, type Question } from '../question';

export const core: Question = {
  id: 'core',
  asks: 'Who is in the thick of it?',
  says: 'How deep in the network a node stands: in a part where all have so many partners in that part.',
  misleads: 'It says how dense the surroundings are, not how important somebody is in them.',
  directedOnly: false,
  columns: [
    measure(
      'core',
      'core number',
      'The largest k for which it is in a part where each has k partners in that part (Seidman 1983); 0 and up.',
      'stands where the network is dense',
    ),
  ],
  seconds: lookingAround,
  answer: ({ either }) => ({ columns: { core: coreNumbers(either) } }),
};
