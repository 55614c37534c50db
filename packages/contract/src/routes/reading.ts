import {
  AudienceMembers,
  AudienceMembersRequest,
  Audiences,
  AudienceSets,
  AudienceSetsQuery,
  AudiencesRequest,
} from '../audiences';
import { Agreement, AgreementRequest, Codebook, Queue, QueueQuery } from '../coding';
import { Comparison, ComparisonRequest, SetMessagesRequest } from '../comparison';
import { MessagePage } from '../message';
import { Moment } from '../moments';
import { Spread, SpreadMessagesRequest, SpreadOffers, SpreadOffersQuery, SpreadRequest } from '../spread';
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
  moments: {
    method: 'get',
    path: '/studies/{study}/moments',
    summary: 'Points in time that the researcher marked, in their order.',
    answer: Moment.array(),
  },
  codebook: {
    method: 'get',
    path: '/studies/{study}/codebook',
    summary: 'The codes of a study, who coded, and what is to be coded.',
    answer: Codebook,
  },
  queue: {
    method: 'get',
    path: '/studies/{study}/samples/{sample}/queue',
    summary: 'Messages of a sample in the order in which they are coded, with what a coder gave them.',
    query: QueueQuery,
    answer: Queue,
  },
  agreement: {
    method: 'post',
    path: '/studies/{study}/agreement',
    summary: 'How far coders agree on a sample, code by code, and what they disagree on.',
    body: AgreementRequest,
    answer: Agreement,
  },
  spreadOffers: {
    method: 'get',
    path: '/studies/{study}/spread-offers',
    summary: 'Messages, texts, hashtags or links that many accounts have.',
    query: SpreadOffersQuery,
    answer: SpreadOffers,
  },
  spread: {
    method: 'post',
    path: '/studies/{study}/spread',
    summary: 'How a message, a text, a hashtag or a link went from account to account, as far as is known.',
    body: SpreadRequest,
    answer: Spread,
  },
  spreadMessages: {
    method: 'post',
    path: '/studies/{study}/spread-messages',
    summary: 'The messages in which something spread.',
    body: SpreadMessagesRequest,
    answer: MessagePage,
  },
  setMessages: {
    method: 'post',
    path: '/studies/{study}/set-messages',
    summary: 'Messages of a set, in the order of time, that a number of a comparison counts.',
    body: SetMessagesRequest,
    answer: MessagePage,
  },
});
