import { randomUUID } from 'node:crypto';
import { constants, copyFileSync, existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Router } from 'express';
import { ROUTES, type OpeningStudy, type Step, type Study } from '@pebble/contract';
import { newStudyId } from '../storage/ids';
import { fileName as fileTitle } from '../exports/writtenFile';
import { packageTitle } from '../files/packageFile';
import { savedPath, uploadPath } from '../files/places';
import { receive } from '../files/receive';
import { BadPackage } from '../files/openedZip';
import { readManifest } from '../storage/savedStudy/readPackage';
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

  /** Makes a study for what stands in a file; the step `open-study` takes it in. */
  const open = async (id: string, path: string, file: string): Promise<OpeningStudy> => {
    const { lastStep } = await readManifest(path);
    const store = await runner.alone(id, () => studies.beginOpening(id, lastStep));
    const upload = randomUUID();
    copyFileSync(path, uploadPath(store.folder, upload), constants.COPYFILE_FICLONE);
    return { study: id, upload, file, by: 'open-study' };
  };

  /** Begins a study for a package with a map; the step `open-package` takes it in. */
  const openPackage = async (path: string, file: string, title: string | null): Promise<OpeningStudy> => {
    const id = newStudyId();
    const name = title ?? (file.replace(/(\.package)?\.zip$/i, '').trim() || 'Package');
    await submit(id, { kind: 'create-study', parameters: { name: name.slice(0, 200) } });
    const upload = randomUUID();
    const { folder } = studies.storeOf(id)!;
    copyFileSync(path, uploadPath(folder, upload), constants.COPYFILE_FICLONE);
    return { study: id, upload, file, by: 'open-package' };
  };

  on(ROUTES.openFile, async ({ request }) => {
    const file = fileName(request.get('x-file-name')) ?? 'study.zip';
    const path = join(studies.dataFolder, 'studies', `${randomUUID()}.part`);
    try {
      await receive(request, path, config.largestUpload);
      const packed = await packageTitle(path);
      if (packed) return await openPackage(path, file, packed.title);
      return await open(newStudyId(), path, file);
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
    return open(study, path, `${study}.zip`);
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
