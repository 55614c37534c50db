import { DecisionPage, DecisionQuery, SuggestionList, TidyPage, TidyQuery } from '../tidy';
import { routeTable } from './route';

export const tidyRoutes = routeTable({
  decisions: {
    method: 'get',
    path: '/studies/{study}/tidy',
    summary: 'The tidy decisions that hold.',
    query: DecisionQuery,
    answer: DecisionPage,
  },
  tidy: {
    method: 'get',
    path: '/studies/{study}/tidy/{sort}',
    summary: 'What was found of a sort, the most used first, and how far its review is.',
    query: TidyQuery,
    answer: TidyPage,
  },
  suggestions: {
    method: 'get',
    path: '/studies/{study}/tidy/{sort}/suggestions',
    summary: 'Pairs that may be the same thing.',
    answer: SuggestionList,
  },
});
