import type { Router } from 'express';
import { ROUTES } from '@pebble/contract';
import { ServiceError } from '../collect/serviceClient';
import { readRuns } from '../storage/collectRuns';
import { ApiError, notFound } from './problems';
import { studyRouter } from './routers';
import type { Services } from './services';

/** Collecting from services: what they are, what a plan costs, and the runs. */
export function collectingRoutes({ studies, collector }: Services): Router {
  const { router, on, store } = studyRouter(studies);

  on(ROUTES.services, () => collector.services());

  on(ROUTES.describeService, ({ body: access }) => asApiError(() => collector.describe(access)));

  on(ROUTES.estimatePlan, ({ body: { access, plan } }) => asApiError(() => collector.estimate(access, plan)));

  on(ROUTES.runs, ({ path, query }) => readRuns(store(path.study), query));

  on(ROUTES.beginRun, ({ path, body }) => asApiError(() => collector.begin(path.study, body)));

  on(ROUTES.commandRun, async ({ path: { study, run: id, command } }) => {
    const run = await asApiError(() => collector.command(study, id, command));
    if (!run) throw notFound('This run');
    return run;
  });

  return router;
}

/** Says what is wrong with a service in words. */
async function asApiError<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof ServiceError) throw new ApiError(422, 'The service cannot be used', error.message);
    throw error;
  }
}
