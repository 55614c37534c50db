import type { Router } from 'express';
import { ROUTES, stepParameters } from '@pebble/contract';
import { readLogbook } from '../storage/steps';
import { checkOwnThings } from './ownThings';
import { ApiError, notFound } from './problems';
import { parseRequest } from './parsing';
import { studyRouter } from './routers';
import type { Services } from './services';

/** Pages that listen to one study at most: each holds a connection. */
const MOST_LISTENERS = 20;

/** Steps are asked for here; the answer comes when the step has ended, its progress by the event stream. */
export function stepRoutes({ studies, runner }: Services): Router {
  const { router, on, store } = studyRouter(studies);
  /** Pages that listen to a study. */
  const listeners = new Map<string, number>();

  on(ROUTES.logbook, ({ path, query }) => readLogbook(store(path.study), query));

  on(ROUTES.runStep, async ({ path: { study }, body: { kind, parameters } }) => {
    checkOwnThings(store(study), kind, parseRequest(stepParameters[kind], parameters));
    const { step, place } = await runner.submit(study, { kind, parameters });
    if (step.state === 'failed') {
      throw new ApiError(422, 'The step could not be done', step.error ?? 'It failed.', {
        ...place,
        kept: 'What was there before is unchanged.',
      });
    }
    return step;
  });

  on(ROUTES.cancelStep, ({ path: { study, step } }) => {
    if (!runner.cancel(study, step)) throw notFound('This running step');
  });

  on(ROUTES.events, ({ path: { study }, request, response }) => {
    const open = listeners.get(study) ?? 0;
    if (open >= MOST_LISTENERS)
      throw new ApiError(429, 'Too many pages', `This study is open in ${open} pages; close some of them.`);
    listeners.set(study, open + 1);
    response.set({
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    });
    response.flushHeaders();
    response.write(': listening\n\n');
    const stop = runner.listen(study, (event) => void response.write(`data: ${JSON.stringify(event)}\n\n`));
    const beat = setInterval(() => void response.write(': still here\n\n'), 20_000);
    request.on('close', () => {
      clearInterval(beat);
      stop();
      listeners.set(study, listeners.get(study)! - 1);
    });
  });

  return router;
}
