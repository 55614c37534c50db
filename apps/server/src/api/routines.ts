import { randomUUID } from 'node:crypto';
import type { Router } from 'express';
import { ROUTES, type Routine, type RoutineRun } from '@pebble/contract';
import { READY_ROUTINES, routineProblems } from '@pebble/core';
import { draftRoutine } from '../routines/draft';
import { planRun } from '../routines/plan';
import { filesAmong } from '../routines/readFiles';
import { RoutineRefused } from '../routines/runs';
import { verifyRun } from '../routines/verify';
import { forgetRoutine, keepRoutine, keptRoutines } from '../storage/routines';
import { findRun, listRuns } from '../storage/routineRuns';
import { checkUpload } from './ownThings';
import { ApiError, fail, notFound } from './problems';
import { routineRefused } from './routineRefused';
import { studyRouter } from './routers';
import type { Services } from './services';

/** Routines that are kept for all studies, and the times that they are run in one. */
export function routineRoutes({ studies, runner, routines, scratch }: Services): Router {
  const { router, on, store } = studyRouter(studies);
  const { catalogue } = studies;
  const checked = (routine: Routine): Routine => {
    const problems = routineProblems(routine);
    if (problems.length > 0) throw routineRefused(new RoutineRefused(problems));
    return routine;
  };
  const find = async (study: string, run: number): Promise<RoutineRun> =>
    (await findRun(store(study), run)) ?? fail(notFound('This run'));

  on(ROUTES.routines, async () => [...(await keptRoutines(catalogue)), ...READY_ROUTINES]);

  on(ROUTES.keepRoutine, ({ body }) => keepRoutine(catalogue, randomUUID(), checked(body)));

  on(ROUTES.changeRoutine, async ({ path: { routine: id }, body }) => {
    const before = (await keptRoutines(catalogue)).find((one) => one.id === id);
    if (!before) throw notFound('This routine');
    const version = Math.max(body.version, before.routine.version + 1);
    return keepRoutine(catalogue, id, checked({ ...body, version }));
  });

  on(ROUTES.forgetRoutine, async ({ path: { routine } }) => {
    if (!(await forgetRoutine(catalogue, routine))) throw notFound('This routine');
  });

  on(ROUTES.draftRoutine, async ({ path: { study }, body }) => {
    const draft = await draftRoutine(store(study), body);
    if (!draft)
      throw new ApiError(
        422,
        'There is no routine in it',
        'None of these steps can be run again on other data.',
      );
    return draft;
  });

  on(ROUTES.planRoutine, ({ path: { study }, body: { routine, answers } }) => {
    for (const { upload } of filesAmong(answers)) checkUpload(store(study).folder, upload);
    return planRun({ store: store(study), runner, catalogue }, routine, answers);
  });

  on(ROUTES.routineRuns, ({ path: { study } }) => listRuns(store(study)));

  on(ROUTES.routineRun, ({ path: { study, routineRun } }) => find(study, routineRun));

  on(
    ROUTES.routineDifferences,
    async ({ path: { study, routineRun: run }, query: { beside }, signal }) =>
      (await runner.read('routineDifferences', study, { run, beside }, signal)) ?? fail(notFound('This run')),
  );

  on(ROUTES.routineOutputs, async ({ path: { study, routineRun }, signal }) => {
    const zip = (await runner.read('runZip', study, routineRun, signal)) ?? fail(notFound('This run'));
    if ('problem' in zip) throw new ApiError(409, 'There are no files', zip.problem);
    return zip;
  });

  on(
    ROUTES.routineLeaks,
    async ({ path: { study, routineRun }, signal }) =>
      (await runner.read('runLeaks', study, routineRun, signal)) ?? fail(notFound('This run')),
  );

  on(ROUTES.verifyRoutine, async ({ path: { study, routineRun }, body: { files }, signal }) => {
    for (const { upload } of Object.values(files).flat()) checkUpload(store(study).folder, upload);
    const verifying = { store: store(study), runner, open: scratch, signal };
    try {
      return (await verifyRun(verifying, routineRun, files)) ?? fail(notFound('This run'));
    } catch (error) {
      throw error instanceof RoutineRefused ? routineRefused(error) : error;
    }
  });

  on(ROUTES.runRoutine, async ({ path: { study }, body: { routine, answers } }) => {
    for (const { upload } of filesAmong(answers)) checkUpload(store(study).folder, upload);
    try {
      return await routines.begin(study, routine, answers);
    } catch (error) {
      throw error instanceof RoutineRefused ? routineRefused(error) : error;
    }
  });

  on(ROUTES.varyRoutine, async ({ path: { study }, body }) => {
    for (const { upload } of filesAmong(body.answers)) checkUpload(store(study).folder, upload);
    try {
      return await routines.vary(study, body);
    } catch (error) {
      throw error instanceof RoutineRefused ? routineRefused(error) : error;
    }
  });

  on(ROUTES.cancelRoutine, async ({ path: { study, routineRun } }) => {
    await find(study, routineRun);
    if (!(await routines.cancel(study, routineRun)))
      throw new ApiError(409, 'It is not running', 'This run has ended already.');
    return routines.ended(study, routineRun);
  });

  on(ROUTES.goOnRoutine, async ({ path: { study, routineRun } }) => {
    await find(study, routineRun);
    const run = await routines.goOn(study, routineRun);
    if (!run)
      throw new ApiError(409, 'There is nothing left to do', 'This run is going on, or all of it is done.');
    return run;
  });

  return router;
}
