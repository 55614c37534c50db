import type { Router } from 'express';
import { ROUTES } from '@pebble/contract';
import { readDecisionPage } from '../storage/decisions';
import { studyRouter } from './routers';
import type { Services } from './services';

/** What was found in the messages of a study, and what was decided of it. */
export function tidyRoutes({ studies, runner }: Services): Router {
  const { router, on, store } = studyRouter(studies);

  on(ROUTES.decisions, ({ path, query }) => readDecisionPage(store(path.study), query));

  on(ROUTES.tidy, ({ path: { study, sort }, query, signal }) =>
    runner.read('tidy', study, { ...query, sort }, signal),
  );

  on(ROUTES.suggestions, ({ path: { study, sort }, signal }) =>
    runner.read('suggestions', study, sort, signal),
  );

  return router;
}
