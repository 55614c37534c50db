import { Router } from 'express';
import { StudyName, type Step } from '@pebble/contract';
import { z } from 'zod';
import { newStudyId } from '../db/ids';
import { parseRequest } from './parsing';
import type { Services } from './services';
import { ApiError, notFound } from './problems';

const Named = z.object({ name: StudyName });

export function studyRoutes({ studies, runner }: Services): Router {
  const routes = Router();
  const done = (step: Step): void => {
    if (step.state !== 'done')
      throw new ApiError(409, 'The step was not done', step.error ?? 'It was stopped.');
  };

  routes.get('/studies', (_request, response) => void response.json(studies.list()));

  routes.post('/studies', async (request, response) => {
    const { name } = parseRequest(Named, request.body);
    const id = newStudyId();
    done((await runner.submit(id, { kind: 'create-study', parameters: { name } })).step);
    response.status(201).json(studies.find(id));
  });

  routes.get('/studies/:study', (request, response) => {
    const study = studies.find(request.params.study);
    if (!study) throw notFound('This study');
    response.json(study);
  });

  routes.patch('/studies/:study', async (request, response) => {
    const { name } = parseRequest(Named, request.body);
    const study = studies.find(request.params.study);
    if (!study) throw notFound('This study');
    done(
      (await runner.submit(study.id, { kind: 'rename-study', parameters: { name, before: study.name } }))
        .step,
    );
    response.json(studies.find(study.id));
  });

  routes.delete('/studies/:study', async (request, response) => {
    const study = studies.find(request.params.study);
    if (!study) throw notFound('This study');
    done((await runner.submit(study.id, { kind: 'delete-study', parameters: {} })).step);
    response.status(204).end();
  });

  routes.post('/studies/:study/restore', async (request, response) => {
    const { deleted } = studies.list();
    const study = deleted.find(({ id }) => id === request.params.study);
    if (!study) throw notFound('This deleted study');
    done((await runner.submit(study.id, { kind: 'restore-study', parameters: {} })).step);
    response.json(studies.find(study.id));
  });

  routes.delete('/studies/:study/for-good', async (request, response) => {
    const { study } = request.params;
    if (!studies.isRemovable(study)) throw notFound('This deleted study');
    await runner.alone(study, () => studies.removeFolder(study));
    response.status(204).end();
  });

  return routes;
}
