import type { Router } from 'express';
import { CollectPlan, NewRun, RunCommand, ServiceAccess } from '@pebble/contract';
import { z } from 'zod';
import { ServiceError } from '../collect/serviceClient';
import { listRuns } from '../storage/collectRuns';
import { ApiError, notFound } from './problems';
import { parseRequest } from './parsing';
import { routerOf, storeOf } from './routers';
import type { Services } from './services';

const EstimateRequest = z.object({ access: ServiceAccess, plan: CollectPlan });

/** Collecting from services: what they are, what a plan costs, and the runs. */
export function collectingRoutes({ studies, collector }: Services): Router {
  const routes = routerOf(studies);
  const store = storeOf(studies);

  routes.get('/services', (_request, response) => {
    response.json(collector.services());
  });

  routes.post('/services/describe', async (request, response) => {
    const access = parseRequest(ServiceAccess, request.body);
    response.json(await said(() => collector.describe(access)));
  });

  routes.post('/services/estimate', async (request, response) => {
    const { access, plan } = parseRequest(EstimateRequest, request.body);
    response.json(await said(() => collector.estimate(access, plan)));
  });

  routes.get('/studies/:study/runs', async (request, response) => {
    response.json(await listRuns(store(request)));
  });

  routes.post('/studies/:study/runs', async (request, response) => {
    const run = parseRequest(NewRun, request.body);
    response.status(201).json(await said(() => collector.begin(request.params.study, run)));
  });

  routes.post('/studies/:study/runs/:run/:command', async (request, response) => {
    const command = RunCommand.safeParse(request.params.command).data;
    if (!command) throw notFound('This command');
    const run = await said(() => collector.command(request.params.study, request.params.run, command));
    if (!run) throw notFound('This run');
    response.json(run);
  });

  return routes;
}

/** Says what is wrong with a service in words. */
async function said<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof ServiceError) throw new ApiError(422, 'The service cannot be used', error.message);
    throw error;
  }
}
