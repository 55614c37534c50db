import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Piscina } from 'piscina';
import { newStudyId } from '../storage/ids';
import { StudyFolders } from '../storage/studyFolders';
import { listSteps } from '../storage/steps';
import { faultOf, logFolder, openLog } from '../files/log';
import { uploadPath } from '../files/places';
import { lookAt } from '../intake/inspectUpload';
import { buildThreads, workerFile } from '../testing/application';
import { Runner } from './runner';

describe('a thread that breaks down', () => {
  let folder: string;
  let studies: StudyFolders;
  let runner: Runner;
  let log: ReturnType<typeof openLog>;
  beforeAll(() => buildThreads(), 60_000);
  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), 'pebble-faults-'));
    studies = await StudyFolders.open(folder);
    log = openLog(folder);
    runner = new Runner(studies, workerFile, { mostRows: 1e6, longestLook: 10_000 }, 1, log.log);
  });
  afterEach(async () => {
    await runner.close();
    await studies.close();
    await log.close();
    rmSync(folder, { recursive: true });
  });

  it('ends its step with a reason, which can be looked up, and the next step is done', async () => {
    const study = newStudyId();
    await runner.submit(study, { kind: 'create-study', parameters: { name: 'S' } });
    const upload = '11111111-2222-4333-8444-555555555555';
    const rows = Array.from(
      { length: 200_000 },
      (_, i) => `${i},ann${i % 900},secret words ${i} @bob${i % 70}`,
    );
    const path = uploadPath(studies.folderOf(study), upload);
    writeFileSync(path, `id,author,text\n${rows.join('\n')}\n`);
    const { reading } = await lookAt(path, 'a.csv');
    const given = {
      kind: 'import-source' as const,
      parameters: { upload, file: 'a.csv', name: 'a', reading },
    };
    const going = runner.submit(study, given);
    await new Promise<void>((begun) => {
      const stop = runner.listen(study, (event) => {
        if (event.type !== 'progress' || event.progress.share === null) return;
        stop();
        begun();
      });
    });
    const { pool } = runner as unknown as { pool: Piscina };
    await Promise.all(pool.threads.map((thread) => thread.terminate()));
    const { step } = await going;
    expect(step.state).toBe('failed');
    const [, id] = /fault ([0-9a-f]{8}) in the folder “log”/.exec(step.error!)!;
    const again = await runner.submit(study, given);
    expect(again.step.state).toBe('done');
    const store = studies.storeOf(study)!;
    expect((await listSteps(store)).map(({ kind, state }) => [kind, state]).slice(-3)).toEqual([
      ['import-source', 'done'],
      ['import-source', 'failed'],
      ['create-study', 'done'],
    ]);
    const [file] = readdirSync(logFolder(folder));
    await log.close();
    log = openLog(folder);
    const written = readFileSync(join(logFolder(folder), file), 'utf8');
    expect(written).toContain(id);
    expect(written).not.toContain('secret words');
    expect(statSync(join(logFolder(folder), file)).mode & 0o777).toBe(0o600);
  }, 60_000);

  it('is told without the words of an error, which may be those of a message, and without the places of files', () => {
    const error = Object.assign(new TypeError('cannot read “a private word”'), { code: 'ODD' });
    const fault = faultOf(error);
    expect(fault).toMatchObject({ kind: 'TypeError', code: 'ODD' });
    expect(fault.stack[0]).toMatch(/faults\.spec\.ts:\d+/);
    expect(JSON.stringify(fault)).not.toMatch(/private|\/apps\/server/);
    expect(faultOf('text')).toMatchObject({ kind: 'string', code: null, stack: [] });
  });
});
