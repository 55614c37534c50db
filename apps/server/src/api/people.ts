import type { Router } from 'express';
import { ROUTES } from '@pebble/contract';
import { studyRouter } from './routers';
import type { Services } from './services';

/** How people are called in what is published, and where they can be found in it all the same. */
export function peopleRoutes({ studies, runner }: Services): Router {
  const { router, on } = studyRouter(studies);

  on(ROUTES.people, ({ path: { study }, signal }) => runner.read('people', study, undefined, signal));

  on(ROUTES.nodeNames, ({ path: { study, network }, signal }) =>
    runner.read('nodeNames', study, network, signal),
  );

  on(ROUTES.leaks, ({ path: { study }, body, signal }) => runner.read('leaks', study, body, signal));

  on(ROUTES.networkLeaks, ({ path: { study, network }, signal }) =>
    runner.read('networkLeaks', study, network, signal),
  );

  return router;
}
