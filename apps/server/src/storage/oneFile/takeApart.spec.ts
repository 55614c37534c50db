import { fork } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defaultMap, type Network, type NetworkPage, type Step } from '@pebble/contract';
import { lookOf } from '@pebble/core';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { builtThreads, buildThreads, TestApplication } from '../../testing/application';
import { intoOneFile } from '../../testing/oneFile';
import { connect } from '../open';
import { StudyFolders } from '../studyFolders';
import { oneFile } from './takeApart';

describe('a data folder in which all studies are in one file', () => {
  const app = new TestApplication();
  let first: string;
  let network: string;
  let before: unknown;
  let removed: { id: number; name: string };

  /** What a researcher sees of both studies. */
  const seen = async (): Promise<unknown> => {
    const get = async (path: string): Promise<unknown> =>
      (await app.api.get(`/api/v1${path}`).expect(200)).body;
    const at = `/studies/${first}/networks/${network}`;
    const bytes = async (path: string): Promise<string> =>
      ((await app.api.get(`/api/v1${at}/${path}`).buffer().expect(200)).body as Buffer).toString('base64');
    return {
      studies: await get('/studies'),
      looks: await get('/looks'),
      overview: await get(`/studies/${first}/overview`),
      messages: await get(`/studies/${first}/messages?text=lamps&limit=50`),
      accounts: await get(`/studies/${first}/accounts?limit=50`),
      sources: await get(`/studies/${first}/sources`),
      decisions: await get(`/studies/${first}/tidy`),
      // Portraits, which give groups their titles, came later.
      networks: ((await get(`/studies/${first}/networks`)) as NetworkPage).networks.map((one) => ({
        ...one,
        titles: {},
      })),
      logbook: await get(`/studies/${first}/logbook`),
      behindNode: await get(`${at}/evidence?node=3`),
      behindGroup: await get(`${at}/evidence?community=1`),
      nodes: await bytes('nodes.arrow'),
      positions: await bytes('positions'),
      skipped: (await app.api.get(`/api/v1/studies/${first}/skipped/${skippedStep}`).expect(200)).text,
      other: await get(`/studies/${app.study}/messages`),
    };
  };
  let skippedStep: number;

  beforeAll(async () => {
    buildThreads(['testing/takeApartProgram.ts']);
    await app.begin();
    first = app.study;
    const { posts } = makePosts(1200);
    await app.take('posts.jsonl', postsAsJsonLines(posts.slice(0, 900)));
    const more = await app.take('more.jsonl', postsAsJsonLines(posts.slice(850)));
    skippedStep = (await app.take('odd.csv', 'id,author,text\nx1,ann,hello #lamps\nx2,,nobody\n')).id;
    removed = { id: Number(more.result?.['source']), name: 'more.jsonl' };
    const weave = { what: 'accounts', kinds: ['reply', 'mention', 'repost'] };
    network = String(
      ((await app.step('weave', { name: 'A', weave }).expect(200)).body as Step).result?.['network'],
    );
    for (let state = ''; state !== 'measured'; await new Promise((done) => setTimeout(done, 50)))
      ({ state } = (await app.api.get(`/api/v1/studies/${first}/networks/${network}`)).body as Network);
    await app
      .step('arrange-map', { network, layout: {}, upload: null, iterations: null, moved: 0 })
      .expect(200);
    await app.step('keep-look', { name: 'Kept', look: lookOf(defaultMap) }).expect(200);
    const decisions = [{ key: 'piefriday', verdict: { verdict: 'drop' } }];
    await app.step('tidy', { sort: 'hashtag', decisions }).expect(200);
    await app.step('remove-source', { source: removed.id, name: removed.name }).expect(200);
    const { body } = await app.api.post('/api/v1/studies').send({ name: 'Another' }).expect(201);
    app.study = (body as { id: string }).id;
    // In one file, no two studies have a number in common.
    const store = connect(app.studyFolder);
    store.raw.exec(`update step set id = id + 100000; delete from sqlite_sequence;
      insert into sqlite_sequence values ('step', 200000), ('source', 200000), ('account', 200000), ('message', 200000)`);
    await store.close();
    await app.take('own.csv', 'id,author,text\n1,zoe,another study @ann\n');
    await settled();
    before = await seen();
    await app.stop();
    await intoOneFile(app.folder);
  }, 120_000);
  afterAll(() => app.end());

  /** Languages are found by themselves, after the import. */
  const settled = async (): Promise<void> => {
    for (const study of [first, app.study])
      for (let isBusy = true; isBusy; await new Promise((done) => setTimeout(done, 100))) {
        const { body } = await app.api.get(`/api/v1/studies/${study}/logbook`);
        const { steps } = body as { steps: Step[] };
        isBusy =
          steps.some(({ state }) => state === 'running') ||
          !steps.some(({ kind }) => kind === 'detect-languages');
      }
  };

  it('holds the same after each study has got its folder, wherever that was killed before', async () => {
    const program = join(builtThreads, 'testing/takeApartProgram.js');
    const whole = mkdtempSync(join(tmpdir(), 'pebble-whole-'));
    cpSync(app.folder, whole, { recursive: true });
    let inTheMiddle = 0;
    for (let round = 0; round < 12; round++) {
      const folder = mkdtempSync(join(tmpdir(), 'pebble-killed-'));
      cpSync(whole, folder, { recursive: true });
      const child = fork(program, [folder]);
      const ended = new Promise((done) => child.once('exit', done));
      await new Promise((done) => child.once('message', done));
      setTimeout(() => child.kill('SIGKILL'), round * 12);
      await ended;
      if (existsSync(oneFile(folder))) inTheMiddle++;
      const studies = await StudyFolders.open(folder);
      expect(
        studies
          .list()
          .studies.map(({ name, messages }) => [name, messages])
          .sort(),
      ).toEqual([
        ['Another', 1],
        ['Test', 901],
      ]);
      expect([existsSync(oneFile(folder)), readdirSync(join(folder, 'studies')).length]).toEqual([false, 2]);
      await studies.close();
      rmSync(folder, { recursive: true });
    }
    expect(inTheMiddle).toBeGreaterThan(2);
    rmSync(whole, { recursive: true });
  }, 120_000);

  it('opens with the same counts, evidence, places and logbook', async () => {
    await app.begin();
    expect(existsSync(oneFile(app.folder))).toBe(false);
    expect(await seen()).toEqual(before);
  });

  it('can take back what was taken out before, and gives no number twice', async () => {
    const study = app.study;
    app.study = first;
    await app.take('late.csv', 'id,author,text\nlate,ann,late\n');
    const store = connect(app.studyFolder);
    const id = (key: string): number =>
      store.raw.prepare('select id from message where key = ?').pluck().get(key) as number;
    // 900 posts, 300 that were taken out, and one of the odd file.
    expect([id('late'), id('x1')]).toEqual([1202, 1201]);
    await store.close();
    const step = (await app.step('restore-source', { source: removed.id, name: removed.name }).expect(200))
      .body as Step;
    expect(step.result).toEqual({ messages: 300, again: 0 });
    expect(await app.get('messages')).toMatchObject({ total: 1202 });
    expect(await app.get('messages', { text: 'lamps' })).not.toMatchObject({ total: 0 });
    app.study = study;
  });
});
