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
