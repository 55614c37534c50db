import {
  AudienceMembers,
  AudienceMembersRequest,
  Audiences,
  AudienceSets,
  AudienceSetsQuery,
  AudiencesRequest,
} from '../audiences';
import { Comparison, ComparisonRequest, SetMessagesRequest } from '../comparison';
import { MessagePage } from '../message';
import { routeTable } from './route';

export const readingRoutes = routeTable({
  audienceSets: {
    method: 'get',
    path: '/studies/{study}/audience-sets',
    summary: 'What accounts can have in common: whom they follow, under what they comment, what they use.',
    query: AudienceSetsQuery,
    answer: AudienceSets,
  },
  audiences: {
    method: 'post',
    path: '/studies/{study}/audiences',
    summary: 'Who belongs to which combination of up to 30 sets, exactly, and what any two share.',
    body: AudiencesRequest,
    answer: Audiences,
  },
  audienceMembers: {
    method: 'post',
    path: '/studies/{study}/audience-members',
    summary: 'Members that are in some sets and not in others, with what is typical of their descriptions.',
    body: AudienceMembersRequest,
    answer: AudienceMembers,
  },
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
