import type { Router } from 'express';
import { ROUTES, type ReportQuery } from '@pebble/contract';
import { checkOwnThings } from './ownThings';
import { ApiError, fail, NEVER_ARRANGED } from './problems';
import { studyRouter } from './routers';
import type { Services } from './services';

/** Maps with all that is told of them, as documents. */
export function reportRoutes({ studies, runner }: Services): Router {
  const { router, on, store } = studyRouter(studies);

  const check = (study: string, { network, plates }: Pick<ReportQuery, 'network' | 'plates'>): void => {
    const ids = plates === '' ? [] : plates.split('|').map(Number);
    checkOwnThings(store(study), 'export-report', { network, plates: ids });
  };

  on(ROUTES.reportCheck, ({ path: { study }, query, signal }) => {
    check(study, query);
    return runner.read('reportCheck', study, query, signal);
  });

  on(ROUTES.report, async ({ path: { study, reportFormat: format }, query, signal }) => {
    check(study, query);
    const report = await runner.read('report', study, { format, query }, signal);
    if ('problem' in report) throw new ApiError(409, 'Not as a report', report.problem);
    return report;
  });

  on(ROUTES.packageCheck, async ({ path: { study, network }, query, signal }) => {
    check(study, { network, plates: '' });
    const found = await runner.read('packageCheck', study, { network, query }, signal);
    return found ?? fail(NEVER_ARRANGED);
  });

  on(ROUTES.package, async ({ path: { study, network }, query, signal }) => {
    check(study, { network, plates: '' });
    const made = (await runner.read('package', study, { network, query }, signal)) ?? fail(NEVER_ARRANGED);
    if ('problem' in made) throw new ApiError(409, 'Not as a package', made.problem);
    return made;
  });

  return router;
}
