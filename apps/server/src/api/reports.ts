import type { Router } from 'express';
import { ROUTES, type ReportQuery } from '@pebble/contract';
import { checkOwnThings } from './ownThings';
import { ApiError } from './problems';
import { studyRouter } from './routers';
import type { Services } from './services';

/** Maps with all that is told of them, as documents. */
export function reportRoutes({ studies, runner }: Services): Router {
  const { router, on, store } = studyRouter(studies);

  const check = (study: string, { network, plates }: ReportQuery): void => {
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

  return router;
}
