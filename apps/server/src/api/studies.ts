import { randomUUID } from 'node:crypto';
import { existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Router } from 'express';
import { ROUTES, type Step, type Study } from '@pebble/contract';
import { newStudyId } from '../storage/ids';
import { fileName as fileTitle } from '../exports/writtenFile';
import { packageTitle } from '../files/packageFile';
import { savedPath } from '../files/places';
import { receive } from '../files/receive';
import { BadPackage } from '../files/openedZip';
import { beginOpening, beginOpeningPackage } from '../opening';
import { answeringOn } from './answering';
import { fileName } from './fileName';
import type { Services } from './services';
import { ApiError, fail, notFound } from './problems';

export function studyRoutes({ studies, runner, config }: Services): Router {
  const router = Router();
  const on = answeringOn(router);
  const find = (id: string): Study => studies.find(id) ?? fail(notFound('This study'));
  const submit = async (...asked: Parameters<typeof runner.submit>): Promise<Step> => {
    const { step } = await runner.submit(...asked);
    if (step.state !== 'done')
      throw new ApiError(409, 'The step was not done', step.error ?? 'It was stopped.');
    return step;
  };

  on(ROUTES.studies, () => studies.list());

  on(ROUTES.createStudy, async ({ body: { name } }) => {
    const id = newStudyId();
    await submit(id, { kind: 'create-study', parameters: { name } });
    return find(id);
  });

  on(ROUTES.study, ({ path }) => find(path.study));

  on(ROUTES.renameStudy, async ({ path, body: { name } }) => {
    const { id, name: before } = find(path.study);
    await submit(id, { kind: 'rename-study', parameters: { name, before } });
    return find(id);
  });

  on(ROUTES.deleteStudy, async ({ path }) => {
    await submit(find(path.study).id, { kind: 'delete-study', parameters: {} });
  });

  on(ROUTES.restoreStudy, async ({ path }) => {
    const study = studies.list().deleted.find(({ id }) => id === path.study);
    if (!study) throw notFound('This deleted study');
    await submit(study.id, { kind: 'restore-study', parameters: {} });
    return find(study.id);
  });

  on(ROUTES.openFile, async ({ request }) => {
    const file = fileName(request.get('x-file-name')) ?? 'study.zip';
    const path = join(studies.dataFolder, 'studies', `${randomUUID()}.part`);
    try {
      await receive(request, path, config.largestUpload);
      const packed = await packageTitle(path);
      if (packed) return await beginOpeningPackage(studies, runner, path, file, packed.title);
      return await beginOpening(studies, runner, newStudyId(), path, file);
    } catch (error) {
      throw error instanceof BadPackage
        ? new ApiError(422, 'The file cannot be opened', error.message, { file, kept: 'Nothing was opened.' })
        : error;
    } finally {
      rmSync(path, { force: true });
    }
  });

  on(ROUTES.openAgain, ({ path: { study } }) => {
    const path = studies.archiveOf(study);
    if (!path) throw notFound('This archived study');
    return beginOpening(studies, runner, study, path, `${study}.zip`);
  });

  on(ROUTES.savedStudy, ({ path: { study, step } }) => {
    const store = studies.storeOf(study);
    const path = store && savedPath(store.folder, step);
    if (!path || !existsSync(path)) throw notFound('This saved study');
    const name = `${fileTitle(studies.find(study)?.name ?? '', 'study')}.zip`;
    return { path, name, type: 'application/zip' };
  });

  on(ROUTES.removeStudy, async ({ path: { study } }) => {
    if (!studies.isRemovable(study)) throw notFound('This deleted study');
    await runner.alone(study, () => studies.removeFolder(study));
  });

  return router;
}
