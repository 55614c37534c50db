import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import type { Step, StudyList } from '@pebble/contract';
import { start, type Running } from './start';
import { buildThreads, testConfig, workerFile } from './testing/application';

describe('a first start with the demo', () => {
  const folder = mkdtempSync(join(tmpdir(), '.pebble-'));
  let running: Running;

  beforeAll(async () => {
    buildThreads();
    running = await start(testConfig(folder), { demo: true, workerFile, log: pino({ level: 'silent' }) });
  }, 60_000);
  afterAll(async () => {
    await running.close();
    rmSync(folder, { recursive: true, force: true });
  });

  const get = async (path: string): Promise<unknown> =>
    (
      await request(running.address)
        .get(`/api/v1${path}`)
        .set('authorization', `Bearer ${running.key}`)
        .expect(200)
    ).body;

  it('has a study with a map and an empty one, and does each step once', async () => {
    const { studies } = (await get('/studies')) as StudyList;
    expect(studies.map(({ messages, networks }) => [messages, networks])).toEqual(
      expect.arrayContaining([
        [0, 0],
        [9000, 1],
      ]),
    );
    const { id } = studies.find(({ messages }) => messages > 0)!;
    let steps: Step[] = [];
    for (let i = 0; i < 200; i++) {
      ({ steps } = (await get(`/studies/${id}/logbook`)) as { steps: Step[] });
      if (steps.length >= 7 && steps.every(({ state }) => state === 'done')) break;
      await new Promise((done) => setTimeout(done, 50));
    }
    // What would be done a second time comes right after.
    await new Promise((done) => setTimeout(done, 500));
    ({ steps } = (await get(`/studies/${id}/logbook`)) as { steps: Step[] });
    expect(steps.map(({ kind }) => kind).sort()).toEqual([
      'arrange-map',
      'create-study',
      'detect-languages',
      'import-source',
      'measure-network',
      'portray-groups',
      'weave',
    ]);
    expect(steps.find(({ kind }) => kind === 'detect-languages')!.sentence).toBe(
      'Languages of 9,000 messages: en 8,704, es 150, fr 146; as their source says.',
    );
  }, 60_000);
});
