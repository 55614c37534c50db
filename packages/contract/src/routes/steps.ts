import { PageQuery } from '../page';
import { Logbook, Step, StepEvent, StepRequest } from '../steps';
import { Events, routeTable } from './route';

export const stepRoutes = routeTable({
  logbook: {
    method: 'get',
    path: '/studies/{study}/logbook',
    summary: 'The steps of a study, the newest first.',
    query: PageQuery,
    answer: Logbook,
  },
  runStep: {
    method: 'post',
    path: '/studies/{study}/steps',
    summary: 'Runs a step; answers when it has ended.',
    body: StepRequest,
    answer: Step,
    problems: { 422: 'The step could not be done; what was there before is unchanged.' },
  },
  cancelStep: {
    method: 'post',
    path: '/studies/{study}/steps/{step}/cancel',
    summary: 'Stops a running step.',
    status: 202,
  },
  events: {
    method: 'get',
    path: '/studies/{study}/events',
    summary: 'Progress and ends of steps as server-sent events.',
    answer: new Events(StepEvent),
    problems: { 429: 'The study is open in too many pages.' },
  },
});
