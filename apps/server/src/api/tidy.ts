import type { Router } from 'express';
import { TidyQuery, TidySort } from '@pebble/contract';
import { readDecisions } from '../storage/decisions';
import { abortOnDisconnect } from './abortOnDisconnect';
import { parseRequest } from './parsing';
import { routerOf, storeOf } from './routers';
import type { Services } from './services';

/** What was found in the messages of a study, and what was decided of it. */
export function tidyRoutes({ studies, runner }: Services): Router {
  const routes = routerOf(studies);
  const store = storeOf(studies);

  routes.get('/studies/:study/tidy', async (request, response) => {
    response.json(await readDecisions(store(request)));
  });

  routes.get('/studies/:study/tidy/:sort', async (request, response) => {
    const sort = TidySort.parse(request.params.sort);
    const query = { ...parseRequest(TidyQuery, request.query), sort };
    response.json(await runner.read('tidy', request.params.study, query, abortOnDisconnect(response)));
  });

  routes.get('/studies/:study/tidy/:sort/suggestions', async (request, response) => {
    const sort = TidySort.parse(request.params.sort);
    response.json(await runner.read('suggestions', request.params.study, sort, abortOnDisconnect(response)));
  });

  return routes;
}
