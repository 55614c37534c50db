import { randomUUID } from 'node:crypto';
import { existsSync, rmSync, statSync } from 'node:fs';
import type { Router } from 'express';
import { EXPORT_ROUTES, ROUTES, type DataExport, type DataKind } from '@pebble/contract';
import { UnreadableFile } from '@pebble/core/files';
import { savedFilters } from '../storage/filters';
import { fileName } from './fileName';
import { Overviews } from './overviews';
import { checkUpload } from './ownThings';
import { forgetReading, savedReadings, saveReading } from '../storage/readings';
import { readSources } from '../storage/sources';
import { findStep } from '../storage/steps';
import { skippedPath, uploadPath } from '../files/places';
import { receive } from '../files/receive';
import { ApiError, notFound } from './problems';
import { studyRouter } from './routers';
import type { Services } from './services';

export function gatherRoutes({ studies, config, runner }: Services): Router {
  const { router, on, store } = studyRouter(studies);
  const { catalogue } = studies;
  const overviews = new Overviews(runner);
  router.param('upload', ({ params }, _response, next, id: string) => {
    checkUpload(store(String(params['study'])).folder, id);
    next();
  });

  on(ROUTES.upload, async ({ path: { study }, request, signal }) => {
    const name = fileName(request.get('x-file-name'));
    if (name === null)
      throw new ApiError(400, 'The request is not right', 'The header x-file-name is missing.', {
        field: 'x-file-name',
      });
    const id = randomUUID();
    const path = uploadPath(store(study).folder, id);
    const size = await receive(request, path, config.largestUpload);
    const asked = { id, name, size, largest: config.largestUpload };
    const answer = await runner.inspectUpload(study, asked, signal).catch((error: unknown) => {
      rmSync(path, { force: true });
      throw error instanceof UnreadableFile && error.file === null
        ? new UnreadableFile(error.message, error.row, name)
        : error;
    });
    // A file that came alone and cannot be read is an error; in an archive the others go in.
    if (answer.uploads.length === 0 && answer.refused.length === 1) {
      const [{ file: refused, reason, row }] = answer.refused;
      throw new UnreadableFile(reason, row, refused);
    }
    for (const upload of answer.uploads)
      upload.preview.saved = await savedReadings(catalogue, upload.preview.reading);
    return answer;
  });

  on(ROUTES.sendBytes, async ({ path: { study }, request }) => {
    const id = randomUUID();
    await receive(request, uploadPath(store(study).folder, id), config.largestUpload);
    return { id };
  });

  on(ROUTES.previewAgain, async ({ path: { study, upload }, body: { file: name, reading }, signal }) => {
    const path = uploadPath(store(study).folder, upload);
    const { size } = statSync(path);
    const preview = await runner.repreview({ path, name, size }, reading, signal);
    return { ...preview, saved: await savedReadings(catalogue, preview.reading) };
  });

  on(ROUTES.dropUpload, ({ path: { study, upload } }) => {
    rmSync(uploadPath(store(study).folder, upload), { force: true });
  });

  on(ROUTES.saveReading, async ({ body: { name, reading } }) => {
    await saveReading(catalogue, name, reading);
    return savedReadings(catalogue, reading);
  });

  on(ROUTES.forgetReading, async ({ path: { reading } }) => {
    if (!(await forgetReading(catalogue, reading))) throw notFound('This reading');
  });

  on(ROUTES.sources, ({ path, query }) => readSources(store(path.study), query));

  on(ROUTES.importReport, async ({ path: { study, step: id }, response }) => {
    const step = await findStep(store(study), id);
    if (!step || step.result === null) throw notFound('This report');
    const { sentence, startedAt, parameters, result } = step;
    response.attachment('report.json');
    return Buffer.from(JSON.stringify({ sentence, startedAt, parameters, report: result }));
  });

  on(ROUTES.skippedRows, async ({ path: { study, step: id } }) => {
    const step = await findStep(store(study), id);
    const path = step ? skippedPath(store(study).folder, step.id) : null;
    if (path === null || !existsSync(path)) throw notFound('The list of skipped rows');
    return { kept: path, name: 'skipped-rows.csv' };
  });

  on(ROUTES.messages, ({ path, query }) => runner.read('messages', path.study, query));

  on(ROUTES.timeline, ({ path, query }) => runner.read('timeline', path.study, query));

  on(ROUTES.thread, async ({ path: { study, message } }) => {
    const thread = await runner.read('thread', study, message);
    if (!thread) throw notFound('This message');
    return thread;
  });

  on(ROUTES.filters, ({ path }) => savedFilters(store(path.study)));

  on(ROUTES.accounts, ({ path, query }) => runner.read('accounts', path.study, query));

  on(ROUTES.items, ({ path, query }) => runner.read('items', path.study, query));

  on(ROUTES.overview, ({ path }) => overviews.read(store(path.study)));

  for (const what of Object.keys(EXPORT_ROUTES) as DataKind[])
    on(EXPORT_ROUTES[what], ({ path: { study, dataFormat: format }, query, signal }) =>
      runner.read('exportData', study, { what, format, filter: query } as DataExport, signal),
    );

  return router;
}
