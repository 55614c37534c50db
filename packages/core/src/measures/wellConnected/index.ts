import { iterating } from '../common/cost';
import { measure, type Question } from '../question';
import { eigenvector, pagerank, unrested } from '../common/rank';

export const wellConnected: Question = {
  id: 'well-connected',
  asks: 'Who is well connected to the well connected?',
  says: 'A node is high when nodes that are high themselves are tied with it, by the weight of their ties.',
  misleads: 'Members of one tight group raise each other: a small closed circle may come out on top.',
  directedOnly: false,
  columns: [
    measure(
      'eigenvector',
      'eigenvector centrality',
      'As high as the nodes tied with it are, without direction (Bonacich 1987); the largest is 1, components with weaker ties come to 0.',
      'is tied with those who are well connected',
    ),
    measure(
      'pageRank',
      'PageRank',
      'Where somebody would be who follows ties along their direction and now and then begins anywhere (Page et al. 1999); all together 1.',
      'is addressed by those who are much addressed',
    ),
  ],
  seconds: iterating,
  answer: ({ either, out, damping }) => {
    const vector = eigenvector(either);
    const rank = pagerank(out, damping);
    return {
      columns: { eigenvector: vector.values, pageRank: rank.values },
      notes: [
        ...(either.weight.length === 0 ? ['Without ties eigenvector centrality is undefined.'] : []),
        ...unrested('Eigenvector centrality', vector),
        ...unrested('PageRank', rank),
      ],
    };
  },
};
