import type { Router } from 'express';
import { ROUTES } from '@pebble/contract';
import { RoutineRefused } from '../routines/runs';
import { listStanding } from '../storage/standingRoutines';
import { fail, notFound } from './problems';
import { routineRefused } from './routineRefused';
import { studyRouter } from './routers';
import type { Services } from './services';

/** Routines that run by themselves in a study. */
export function standingRoutes({ studies, standing }: Services): Router {
  const { router, on, store } = studyRouter(studies);

  on(ROUTES.standingRoutines, ({ path: { study } }) => listStanding(store(study)));

  on(ROUTES.beginStanding, async ({ path: { study }, body }) => {
    // That the study is there is told first.
    store(study);
    try {
      return await standing.begin(study, body);
    } catch (error) {
      throw error instanceof RoutineRefused ? routineRefused(error) : error;
    }
  });

  on(
    ROUTES.changeStanding,
    async ({ path: { study, standing: id }, body: { isOn } }) =>
      (await standing.switch(study, id, isOn)) ?? fail(notFound('This standing routine')),
  );

  on(ROUTES.endStanding, async ({ path: { study, standing: id } }) => {
    if (!(await standing.end(study, id))) throw notFound('This standing routine');
  });

  return router;
}
