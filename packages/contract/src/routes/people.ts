import { LeakQuestion, Leaks, NodeNames, People } from '../people';
import { routeTable } from './route';

export const peopleRoutes = routeTable({
  people: {
    method: 'get',
    path: '/studies/{study}/people',
    summary: 'How people are called in what is published.',
    answer: People,
  },
  nodeNames: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/names',
    summary: 'What the nodes of a network are called in what is published.',
    answer: NodeNames,
  },
  leaks: {
    method: 'post',
    path: '/studies/{study}/leaks',
    summary:
      'Where people can be found in texts that are to be published: handles, names, addresses, messages, links.',
    body: LeakQuestion,
    answer: Leaks,
  },
  networkLeaks: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/leaks',
    summary: 'Where people can be found in the tables of a network as they are published.',
    answer: Leaks,
  },
});
