import * as z from 'zod';
import {
  CollectEstimate,
  CollectPlan,
  CollectRun,
  CollectRunPage,
  KnownServiceList,
  NewRun,
  ServiceAccess,
  ServiceDescription,
} from '../collect';
import { PageQuery } from '../page';
import { routeTable } from './route';

const UNUSABLE = { 422: 'The service cannot be used; the problem says why.' };

export const collectingRoutes = routeTable({
  services: {
    method: 'get',
    path: '/services',
    summary: 'The services that can be collected from; secrets are never told.',
    answer: KnownServiceList,
  },
  describeService: {
    method: 'post',
    path: '/services/describe',
    summary: 'Asks a service what it is and what it allows.',
    body: ServiceAccess,
    answer: ServiceDescription,
    problems: UNUSABLE,
  },
  estimatePlan: {
    method: 'post',
    path: '/services/estimate',
    summary: 'What a plan of collecting costs at most.',
    body: z.object({ access: ServiceAccess, plan: CollectPlan }),
    answer: CollectEstimate,
    problems: UNUSABLE,
  },
  runs: {
    method: 'get',
    path: '/studies/{study}/runs',
    summary: 'The collecting runs of a study, the newest first.',
    query: PageQuery,
    answer: CollectRunPage,
  },
  beginRun: {
    method: 'post',
    path: '/studies/{study}/runs',
    summary: 'Begins a collecting run.',
    body: NewRun,
    answer: CollectRun,
    status: 201,
    problems: UNUSABLE,
  },
  commandRun: {
    method: 'post',
    path: '/studies/{study}/runs/{run}/{command}',
    summary: 'Pauses a collecting run, or goes on with it, cancels it, runs it again or forgets it.',
    answer: CollectRun,
    problems: UNUSABLE,
  },
});
