import { randomUUID } from 'node:crypto';
import { existsSync, rmSync, statSync } from 'node:fs';
import type { Router } from 'express';
import {
  AccountQuery,
  DataExport,
  FileName,
  ImportReport,
  ItemQuery,
  MessageQuery,
  NewReading,
  Reading,
  TimelineQuery,
  type Source,
} from '@pebble/contract';
import { UnreadableFile } from '@pebble/core/files';
import { z } from 'zod';
import { savedFilters } from '../storage/filters';
import { fileName } from './fileName';
import { abortOnDisconnect } from './abortOnDisconnect';
import { Overviews } from './overviews';
import { checkUpload } from './ownThings';
import { sendFile, streamFile } from './sendFile';
import { forgetReading, savedReadings, saveReading } from '../storage/readings';
import { findStep } from '../storage/steps';
import { skippedPath, uploadPath } from '../storage/files/places';
import { receive } from '../files/receive';
import { notFound } from './problems';
import { parseRequest } from './parsing';
import { routerOf, storeOf } from './routers';
import type { Services } from './services';

const Again = z.object({ file: FileName, reading: Reading.partial() });

export function gatherRoutes({ studies, config, runner }: Services): Router {
  const routes = routerOf(studies);
  const store = storeOf(studies);
  const overviews = new Overviews(runner);
  routes.param('upload', (request, _response, next, id: string) => {
    checkUpload(store(request).folder, id);
    next();
  });

  routes.post('/studies/:study/uploads', async (request, response) => {
    const { study } = request.params;
    const id = randomUUID();
    const path = uploadPath(store(request).folder, id);
    const file = fileName(request.get('x-file-name'));
    const size = await receive(request, path, config.largestUpload);
    if (file === null) {
      response.status(201).json({ id });
      return;
    }
    const asked = { id, name: file, size, largest: config.largestUpload };
    const answer = await runner
      .inspectUpload(study, asked, abortOnDisconnect(response))
      .catch((error: unknown) => {
        rmSync(path, { force: true });
        throw error instanceof UnreadableFile && error.file === null
          ? new UnreadableFile(error.message, error.row, file)
          : error;
      });
    // A file that came alone and cannot be read is an error; in an archive the others go in.
    if (answer.uploads.length === 0 && answer.refused.length === 1) {
      const [{ file: refused, reason, row }] = answer.refused;
      throw new UnreadableFile(reason, row, refused);
    }
    for (const upload of answer.uploads)
      upload.preview.saved = await savedReadings(studies.catalogue, upload.preview.reading);
    response.status(201).json(answer);
  });

  routes.post('/studies/:study/uploads/:upload/preview', async (request, response) => {
    const path = uploadPath(store(request).folder, request.params.upload);
    const { file, reading } = parseRequest(Again, request.body);
    const { size } = statSync(path);
    const preview = await runner.repreview({ path, name: file, size }, reading, abortOnDisconnect(response));
    response.json({ ...preview, saved: await savedReadings(studies.catalogue, preview.reading) });
  });

  routes.post('/readings', async (request, response) => {
    const { name, reading } = parseRequest(NewReading, request.body);
    await saveReading(studies.catalogue, name, reading);
    response.status(201).json(await savedReadings(studies.catalogue, reading));
  });

  routes.delete('/readings/:reading', async (request, response) => {
    if (!(await forgetReading(studies.catalogue, Number(request.params.reading))))
      throw notFound('This reading');
    response.status(204).end();
  });

  routes.delete('/studies/:study/uploads/:upload', (request, response) => {
    rmSync(uploadPath(store(request).folder, request.params.upload), { force: true });
    response.status(204).end();
  });

  routes.get('/studies/:study/sources', async (request, response) => {
    const rows = await store(request).query.selectFrom('source').selectAll().orderBy('id').execute();
    const sources: Source[] = rows.map((row) => ({
      id: row.id,
      name: row.name,
      format: row.format,
      step: row.step_id,
      report: ImportReport.parse(JSON.parse(row.report)),
      removedAt: row.removed_at,
    }));
    response.json(sources);
  });

  routes.get('/studies/:study/reports/:step', async (request, response) => {
    const step = await findStep(store(request), Number(request.params.step));
    if (!step || step.result === null) throw notFound('This report');
    const { sentence, startedAt, parameters, result } = step;
    response.attachment('report.json').json({ sentence, startedAt, parameters, report: result });
  });

  routes.get('/studies/:study/skipped/:step', async (request, response) => {
    const step = await findStep(store(request), Number(request.params.step));
    const path = step ? skippedPath(store(request).folder, step.id) : null;
    if (path === null || !existsSync(path)) throw notFound('The list of skipped rows');
    await streamFile(response.attachment('skipped-rows.csv'), path);
  });

  routes.get('/studies/:study/messages', async (request, response) => {
    response.json(
      await runner.read('messages', request.params.study, parseRequest(MessageQuery, request.query)),
    );
  });

  routes.get('/studies/:study/timeline', async (request, response) => {
    response.json(
      await runner.read('timeline', request.params.study, parseRequest(TimelineQuery, request.query)),
    );
  });

  routes.get('/studies/:study/messages/:message/thread', async (request, response) => {
    const thread = await runner.read('thread', request.params.study, Number(request.params.message));
    if (!thread) throw notFound('This message');
    response.json(thread);
  });

  routes.get('/studies/:study/filters', async (request, response) => {
    response.json(await savedFilters(store(request)));
  });

  routes.get('/studies/:study/accounts', async (request, response) => {
    response.json(
      await runner.read('accounts', request.params.study, parseRequest(AccountQuery, request.query)),
    );
  });

  routes.get('/studies/:study/items', async (request, response) => {
    response.json(await runner.read('items', request.params.study, parseRequest(ItemQuery, request.query)));
  });

  routes.get('/studies/:study/export/:file', async (request, response) => {
    const [what, format] = request.params.file.split('.');
    const asks = parseRequest(DataExport, { what, format, filter: request.query });
    await sendFile(
      response,
      await runner.read('exportData', request.params.study, asks, abortOnDisconnect(response)),
    );
  });

  routes.get('/studies/:study/overview', async (request, response) => {
    response.json(await overviews.read(store(request)));
  });

  return routes;
}
