import type { Router } from 'express';
import { ROUTES } from '@pebble/contract';
import { findPlate, platePositions } from '../storage/plates';
import { fail, notFound } from './problems';
import { studyRouter } from './routers';
import type { Services } from './services';

/** The kept states of maps. */
export function plateRoutes({ studies, runner }: Services): Router {
  const { router, on, store } = studyRouter(studies);

  on(ROUTES.plates, ({ path: { study }, signal }) => runner.read('plates', study, undefined, signal));

  on(ROUTES.cover, ({ path: { study }, signal }) => runner.read('cover', study, undefined, signal));

  on(ROUTES.plateMap, async ({ path: { study, plate } }) => {
    const found = await findPlate(store(study), plate);
    return found?.map ?? fail(notFound('This plate'));
  });

  on(ROUTES.platePositions, async ({ path: { study, plate } }) => {
    const found = await findPlate(store(study), plate);
    const positions = found && (await platePositions(store(study), plate));
    return positions ?? fail(notFound('This plate'));
  });

  return router;
}
