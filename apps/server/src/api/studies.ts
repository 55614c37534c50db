import { randomUUID } from 'node:crypto';
import { constants, copyFileSync, existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Router } from 'express';
import { StudyName, type OpeningStudy, type Step } from '@pebble/contract';
import { z } from 'zod';
import { newStudyId } from '../storage/ids';
import { fileName as fileTitle } from '../exports/writtenFile';
import { savedPath, uploadPath } from '../storage/files/places';
import { receive } from '../files/receive';
import { BadPackage } from '../storage/package/manifest';
import { readManifest } from '../storage/package/readPackage';
import { fileName } from './fileName';
import { parseRequest } from './parsing';
import { sendFile } from './sendFile';
import type { Services } from './services';
import { ApiError, notFound } from './problems';

const Named = z.object({ name: StudyName });

export function studyRoutes({ studies, runner, config }: Services): Router {
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

  /** Makes a study for what stands in a file; the step `open-study` takes it in. */
  const open = async (id: string, path: string, file: string): Promise<OpeningStudy> => {
    const { lastStep } = await readManifest(path);
    const store = await runner.alone(id, () => studies.beginOpening(id, lastStep));
    const upload = randomUUID();
    copyFileSync(path, uploadPath(store.folder, upload), constants.COPYFILE_FICLONE);
    return { study: id, upload, file };
  };

  routes.post('/studies/open', async (request, response) => {
    const file = fileName(request.get('x-file-name')) ?? 'study.zip';
    const path = join(studies.dataFolder, 'studies', `${randomUUID()}.part`);
    try {
      await receive(request, path, config.largestUpload);
      response.status(201).json(await open(newStudyId(), path, file));
    } catch (error) {
      throw error instanceof BadPackage
        ? new ApiError(422, 'The file cannot be opened', error.message, { file, kept: 'Nothing was opened.' })
        : error;
    } finally {
      rmSync(path, { force: true });
    }
  });

  routes.post('/studies/:study/open-again', async (request, response) => {
    const { study } = request.params;
    const path = studies.archiveOf(study);
    if (!path) throw notFound('This archived study');
    response.status(201).json(await open(study, path, `${study}.zip`));
  });

  routes.get('/studies/:study/saved/:step', async (request, response) => {
    const { study, step } = request.params;
    const store = studies.storeOf(study);
    const path = store && savedPath(store.folder, Number(step));
    if (!path || !existsSync(path)) throw notFound('This saved study');
    const name = `${fileTitle(studies.find(study)?.name ?? '', 'study')}.zip`;
    await sendFile(response, { path, name, type: 'application/zip' });
  });

  routes.delete('/studies/:study/for-good', async (request, response) => {
    const { study } = request.params;
    if (!studies.isRemovable(study)) throw notFound('This deleted study');
    await runner.alone(study, () => studies.removeFolder(study));
    response.status(204).end();
  });

  return routes;
}
