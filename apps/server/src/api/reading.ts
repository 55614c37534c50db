import type { Router } from 'express';
import { ROUTES, type MessageSet } from '@pebble/contract';
import { checkOwnThings } from './ownThings';
import { studyRouter } from './routers';
import type { Services } from './services';

/** What is read from messages that belong together. */
export function readingRoutes({ studies, runner }: Services): Router {
  const { router, on, store } = studyRouter(studies);
  const check = (study: string, sets: readonly (MessageSet | null)[]): void => {
    for (const set of sets) {
      if (!set) continue;
      const named = set.what === 'filter' ? { source: set.filter.source } : { network: set.network };
      checkOwnThings(store(study), 'comparison', named);
    }
  };

  const own = (study: string, network: string | undefined): void =>
    checkOwnThings(store(study), 'comparison', { network });

  on(ROUTES.audienceSets, ({ path: { study }, query, signal }) => {
    own(study, query.network);
    return runner.read('audienceSets', study, query, signal);
  });

  on(ROUTES.audiences, ({ path: { study }, body, signal }) => {
    own(study, body.network);
    return runner.read('audiences', study, body, signal);
  });

  on(ROUTES.audienceMembers, ({ path: { study }, body, signal }) => {
    own(study, body.network);
    return runner.read('audienceMembers', study, body, signal);
  });

  on(ROUTES.comparison, ({ path: { study }, body, signal }) => {
    check(study, [body.a, body.b]);
    return runner.read('comparison', study, body, signal);
  });

  on(ROUTES.setMessages, ({ path: { study }, body, signal }) => {
    check(study, [body.set, body.without]);
    return runner.read('setMessages', study, body, signal);
  });

  return router;
}
