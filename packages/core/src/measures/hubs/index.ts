import { iterating } from '../common/cost';
import { measure, type Question } from '../question';
import { hubsAndAuthorities, unrested } from '../common/rank';

export const hubs: Question = {
  id: 'hubs',
  asks: 'Who is looked up to, and who points there?',
  says: 'Authorities are those to whom good hubs lead; hubs are those whose ties lead to good authorities.',
  misleads: 'One busy group may take all of both, while others of the network come to 0.',
  directedOnly: true,
  columns: [
    measure(
      'hub',
      'hub',
      'Its ties lead to good authorities (Kleinberg 1999); all together 1.',
      'points to those who are looked up to',
    ),
    measure(
      'authority',
      'authority',
      'Ties of good hubs lead to it (Kleinberg 1999); all together 1.',
      'is looked up to',
    ),
  ],
  seconds: iterating,
  answer: ({ out }) => {
    const found = hubsAndAuthorities(out);
    return {
      columns: { hub: found.hubs, authority: found.authorities },
      notes: [
        ...(out.weight.length === 0 ? ['Without ties hubs and authorities are undefined.'] : []),
        ...unrested('The search for hubs and authorities', found),
      ],
    };
  },
};
