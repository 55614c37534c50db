import { lookingAround } from '../common/cost';
import { measure, type Question } from '../question';
import { betweenGroups } from './betweenGroups';

export const betweenGroupsQuestion: Question = {
  id: 'between-groups',
  asks: 'Who connects communities, and who is loud in one alone?',
  says: 'Whether the partners of a node are in its own community or spread over many.',
  misleads: 'It stands and falls with the communities: other groups give other connectors.',
  directedOnly: false,
  columns: [
    measure(
      'participation',
      'participation',
      '1 minus the sum of the squared shares of its partners in each community (Guimerà & Amaral 2005); 0 to 1: 0 where all are in one, none for isolates.',
      'has partners in many communities',
    ),
    measure(
      'outwardness',
      'E-I index',
      'Partners in other communities minus those in its own, over all (Krackhardt & Stern 1988); 0 for as many, 1 for all outside, -1 for all inside, none for isolates.',
      'is tied out of its community',
    ),
    measure(
      'groupsTouched',
      'communities touched',
      'Different communities of its partners; 0 and up.',
      'touches many communities',
    ),
  ],
  seconds: lookingAround,
  answer: ({ either, groups }) => {
    if (groups === null)
      return { notes: ['The nodes have no such groups: a question that needs them was left out.'] };
    const { participation, outwardness, groupsTouched } = betweenGroups(either, groups);
    return { columns: { participation, outwardness, groupsTouched } };
  },
};
