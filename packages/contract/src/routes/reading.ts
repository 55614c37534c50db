import { Comparison, ComparisonRequest, SetMessagesRequest } from '../comparison';
import { MessagePage } from '../message';
import { routeTable } from './route';

export const readingRoutes = routeTable({
  comparison: {
    method: 'post',
    path: '/studies/{study}/comparison',
    summary:
      'Two sets of messages beside each other: who wrote them, what is typical of each, what both have.',
    body: ComparisonRequest,
    answer: Comparison,
  },
  setMessages: {
    method: 'post',
    path: '/studies/{study}/set-messages',
    summary: 'Messages of a set, in the order of time, that a number of a comparison counts.',
    body: SetMessagesRequest,
    answer: MessagePage,
  },
});
