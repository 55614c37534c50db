import type { Router } from 'express';
import { ROUTES, type ReadSet } from '@pebble/contract';
import { readCodebook } from '../storage/codings';
import { readMoments } from '../storage/moments';
import { checkOwnThings } from './ownThings';
import { studyRouter } from './routers';
import type { Services } from './services';

/** What is read from messages that belong together. */
export function readingRoutes({ studies, runner }: Services): Router {
  const { router, on, store } = studyRouter(studies);
  const check = (study: string, sets: readonly (ReadSet | null)[]): void => {
    for (const set of sets) {
      if (!set) continue;
      const named = set.what === 'filter' ? { source: set.filter.source } : { network: set.network };
      checkOwnThings(store(study), 'comparison', named);
      if (set.what === 'kept') checkOwnThings(store(study), 'comparison', { network: set.before.network });
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

  on(ROUTES.moments, ({ path: { study } }) => readMoments(store(study)));

  on(ROUTES.codebook, ({ path: { study } }) => readCodebook(store(study)));

  on(ROUTES.queue, ({ path: { study, sample }, query, signal }) => {
    checkOwnThings(store(study), 'comparison', { sample });
    return runner.read('queue', study, { sample, query }, signal);
  });

  on(ROUTES.agreement, ({ path: { study }, body, signal }) => {
    checkOwnThings(store(study), 'comparison', { sample: body.sample });
    return runner.read('agreement', study, body, signal);
  });

  on(ROUTES.spreadOffers, ({ path: { study }, query, signal }) =>
    runner.read('spreadOffers', study, query, signal),
  );

  on(ROUTES.spread, ({ path: { study }, body, signal }) => {
    own(study, body.network ?? undefined);
    return runner.read('spread', study, body, signal);
  });

  on(ROUTES.spreadMessages, ({ path: { study }, body, signal }) => {
    own(study, body.within?.network);
    return runner.read('spreadMessages', study, body, signal);
  });

  on(ROUTES.setMessages, ({ path: { study }, body, signal }) => {
    check(study, [body.set, body.without]);
    return runner.read('setMessages', study, body, signal);
  });

  return router;
}
