import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import SqliteDatabase from 'better-sqlite3';
import { unzipSync, zipSync, strToU8, strFromU8 } from 'fflate';
import type { Network, OpeningStudy, Step, StudyList } from '@pebble/contract';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { studyFolder } from './storage/open';
import { archivePath } from './files/places';
import { startedApplication } from './testing/application';

describe('a study is copied', () => {
  const app = startedApplication();
  let first: string;
  let network: string;
  let zip: Uint8Array;

  const list = async (): Promise<StudyList> =>
    (await app.api.get('/api/v1/studies').expect(200)).body as StudyList;
  /** What a researcher sees of a study, but what tells it from another with the same in it. */
  const seen = async (study: string, leaveOut: readonly string[] = []): Promise<object> => {
    const at = `/api/v1/studies/${study}`;
    const get = async (path: string): Promise<object> =>
      (await app.api.get(`${at}/${path}`).expect(200)).body as object;
    const bytes = async (path: string): Promise<string> =>
      ((await app.api.get(`${at}/networks/${network}/${path}`).buffer().expect(200)).body as Buffer).toString(
        'base64',
      );
    const { steps } = (await get('logbook')) as { steps: Step[] };
    const { networks } = (await get('networks')) as { networks: Network[] };
    return {
      overview: await get('overview'),
      messages: await get('messages?text=lamps&limit=100'),
      accounts: await get('accounts?limit=100'),
      sources: await get('sources'),
      decisions: await get('tidy'),
      deleted: await get('deleted'),
      networks: networks.map((one) => ({ ...one, study: '' })),
      evidence: await get(`networks/${network}/evidence?community=1`),
      nodes: await bytes('nodes.arrow'),
      positions: await bytes('positions'),
      steps: steps.filter(({ kind }) => !leaveOut.includes(kind)).map((step) => ({ ...step, study: '' })),
    };
  };
  const step = async (study: string, kind: string, parameters: object): Promise<Step> =>
    (await app.api.post(`/api/v1/studies/${study}/steps`).send({ kind, parameters }).expect(200))
      .body as Step;
  /** Waits for what follows by itself: the languages of what came, and the portraits of what was woven. */
  const settled = async (study: string): Promise<void> => {
    for (let isBusy = true; isBusy; await new Promise((done) => setTimeout(done, 60))) {
      const { steps } = (await app.api.get(`/api/v1/studies/${study}/logbook`)).body as { steps: Step[] };
      isBusy =
        steps.some(({ state }) => state === 'running') ||
        !['detect-languages', 'portray-groups'].every((follows) =>
          steps.some(({ kind }) => kind === follows),
        );
    }
  };

  beforeAll(async () => {
    first = app.study;
    const { posts } = makePosts(900);
    await app.take('posts.jsonl', postsAsJsonLines(posts));
    const out = await app.take('out.csv', 'id,author,text\nz1,zoe,hello lamps\nz2,,nobody\n');
    await step(first, 'remove-source', { source: out.result?.['source'], name: 'out.csv' });
    const weave = { what: 'accounts', kinds: ['reply', 'mention', 'repost'] };
    network = String((await step(first, 'weave', { name: 'A', weave })).result?.['network']);
    for (let state = ''; state !== 'measured'; await new Promise((done) => setTimeout(done, 50)))
      ({ state } = (await app.api.get(`/api/v1/studies/${first}/networks/${network}`)).body as Network);
    await step(first, 'arrange-map', { network, layout: {}, upload: null, iterations: null, moved: 0 });
    await step(first, 'tidy', {
      sort: 'hashtag',
      decisions: [{ key: 'piefriday', verdict: { verdict: 'drop' } }],
    });
    await settled(first);
  }, 120_000);

  it('as a second one beside it, in which everything is as in the first, and which goes its own way', async () => {
    const before = await seen(first);
    const done = await step(first, 'duplicate-study', { name: 'Second' });
    const second = String(done.result?.['study']);
    expect((await list()).studies.map(({ name, messages }) => [name, messages]).sort()).toEqual([
      ['Second', 900],
      ['Test', 900],
    ]);
    expect(await seen(second, ['duplicate-study'])).toEqual(before);
    const { steps } = (await app.api.get(`/api/v1/studies/${second}/logbook`)).body as { steps: Step[] };
    expect(steps[0].sentence).toBe('The study was begun as a duplicate of “Test”.');
    await step(second, 'delete-network', { network });
    await step(second, 'restore-source', { source: 2, name: 'out.csv' });
    await step(second, 'compute-column', {
      network: await weaveIn(second),
      name: 'twice',
      formula: '2 * weight',
    }).catch(() => 0);
    expect(await seen(first, ['duplicate-study'])).toEqual(before);
    await app.api.delete(`/api/v1/studies/${second}`).expect(204);
    await app.api.delete(`/api/v1/studies/${second}/for-good`).expect(204);
    expect(await seen(first, ['duplicate-study'])).toEqual(before);
    expect(readdirSync(join(app.folder, 'studies'))).toEqual([first]);
  }, 60_000);

  const weaveIn = async (study: string): Promise<string> => {
    const weave = { what: 'accounts', kinds: ['mention'] };
    return String((await step(study, 'weave', { name: 'B', weave })).result?.['network']);
  };

  describe('as one file', () => {
    const open = (bytes: Uint8Array, name = 'kept.zip') =>
      app.api
        .post('/api/v1/studies/open')
        .set('content-type', 'application/octet-stream')
        .set('x-file-name', name)
        .send(Buffer.from(bytes));
    /** Opens a file as far as it goes; gives the study, or why not. */
    const opened = async (bytes: Uint8Array): Promise<{ study: string } | { reason: string }> => {
      const sent = await open(bytes);
      if (sent.status !== 201) return { reason: (sent.body as { detail: string }).detail };
      const { study, by, ...parameters } = sent.body as OpeningStudy;
      const done = await app.api.post(`/api/v1/studies/${study}/steps`).send({ kind: by, parameters });
      return done.status === 200 ? { study } : { reason: (done.body as { detail: string }).detail };
    };

    it('that any program can read: a zip of SQLite, Arrow and JSON, each with its checksum', async () => {
      const saved = await step(first, 'save-study', {});
      const { body } = await app.api
        .get(`/api/v1/studies/${first}/saved/${saved.id}`)
        .buffer()
        .responseType('blob')
        .expect(200)
        .expect('content-disposition', 'attachment; filename=Test.zip');
      zip = new Uint8Array(body as Buffer);
      await app.api.get(`/api/v1/studies/${first}/saved/${saved.id}`).expect(404);
      const files = unzipSync(zip);
      expect(
        Object.keys(files)
          .map((name) => name.replace(/\d+\.csv$/, 'N.csv'))
          .sort(),
      ).toEqual([
        'README.txt',
        'manifest.json',
        `networks/${network}/edges.arrow`,
        `networks/${network}/nodes.arrow`,
        'study.sqlite',
        'uploads/skipped-N.csv',
      ]);
      const manifest = JSON.parse(strFromU8(files['manifest.json'])) as {
        files: { place: string; bytes: number; sha256: string }[];
      };
      for (const { place, bytes, sha256 } of manifest.files) {
        expect(files[place].length).toBe(bytes);
        expect(createHash('sha256').update(files[place]).digest('hex')).toBe(sha256);
      }
      const path = join(app.folder, 'read-by-another.sqlite');
      writeFileSync(path, files['study.sqlite']);
      const db = new SqliteDatabase(path, { readonly: true });
      expect(db.prepare('select count(*) from message').pluck().get()).toBe(900);
      expect(db.prepare("select count(*) from step where state = 'running'").pluck().get()).toBe(0);
      db.close();
    });

    it('and opened again, with everything in it and its logbook', async () => {
      const before = await seen(first, ['duplicate-study', 'save-study']);
      const { study } = (await opened(zip)) as { study: string };
      expect(await seen(study, ['duplicate-study', 'open-study'])).toEqual(before);
      const { steps } = (await app.api.get(`/api/v1/studies/${study}/logbook`)).body as { steps: Step[] };
      expect(steps[0].sentence).toBe('The study was opened from the file kept.zip with 900 messages.');
      expect(await step(study, 'restore-source', { source: 2, name: 'out.csv' })).toMatchObject({
        state: 'done',
      });
      const { total } = (await app.api.get(`/api/v1/studies/${study}/messages?text=hello`)).body as {
        total: number;
      };
      expect(total).toBeGreaterThan(0);
      await app.api.delete(`/api/v1/studies/${study}`).expect(204);
      await app.api.delete(`/api/v1/studies/${study}/for-good`).expect(204);
    }, 60_000);

    type Files = Record<string, Uint8Array>;
    interface Told {
      files: { place: string; bytes: number; sha256: string }[];
      version: number;
      tables: string;
    }
    /** The file with something changed in it; checksums fit again where they are asked to. */
    const changed = (change: (files: Files, manifest: Told) => void, fits = true): Uint8Array => {
      const files = unzipSync(zip);
      const manifest = JSON.parse(strFromU8(files['manifest.json'])) as Told;
      change(files, manifest);
      if (fits)
        for (const file of manifest.files)
          if (files[file.place]) {
            file.bytes = files[file.place].length;
            file.sha256 = createHash('sha256').update(files[file.place]).digest('hex');
          }
      if (files['manifest.json']) files['manifest.json'] = strToU8(JSON.stringify(manifest));
      return zipSync(files, { level: 1 });
    };
    const database = (sql: string): Uint8Array => {
      const path = join(app.folder, 'changed.sqlite');
      writeFileSync(path, unzipSync(zip)['study.sqlite']);
      const db = new SqliteDatabase(path);
      db.pragma('writable_schema = ON');
      db.exec(sql);
      db.close();
      return new Uint8Array(readFileSync(path));
    };
    const withDatabase = (sql: string) => () =>
      changed((files) => void (files['study.sqlite'] = database(sql)));

    it.each<[string, () => Uint8Array, RegExp]>([
      ['text', () => strToU8('no zip at all'), /^This is no zip file/],
      ['a zip that was cut off', () => zip.subarray(0, zip.length - 500), /^This is no zip file/],
      ['a zip of something else', () => zipSync({ 'a.txt': strToU8('a') }), /has no manifest/],
      ['a manifest that is no JSON', () => zipSync({ 'manifest.json': strToU8('{') }), /no JSON/],
      [
        'a later version',
        () => changed((_, told) => void (told.version = 2)),
        /a later version of Pebble Thread/,
      ],
      [
        'other tables',
        () => changed((_, told) => void (told.tables = '0099-later')),
        /tables are of another version/,
      ],
      [
        'a place outside',
        () => changed((_, told) => void (told.files[0].place = '../../evil')),
        /manifest of this study is not right \(files\.0\.place/,
      ],
      [
        'a file that is not named',
        () => changed((files) => void (files['evil.sh'] = strToU8('x'))),
        /“evil\.sh” is not named/,
      ],
      [
        'a file that is missing',
        () => changed((files) => void delete files[`networks/${network}/nodes.arrow`]),
        /nodes\.arrow is missing in it/,
      ],
      [
        'a byte that is another',
        () => changed((files) => void (files[`networks/${network}/nodes.arrow`][700] ^= 1), false),
        /nodes\.arrow in it is damaged: its checksum does not fit/,
      ],
      [
        'a size that does not fit',
        () => changed((files) => void (files['study.sqlite'] = new Uint8Array(9_000_000)), false),
        /study\.sqlite in it is damaged/,
      ],
      [
        'no database',
        () => changed((files) => void (files['study.sqlite'] = strToU8('x'.repeat(5000)))),
        /database/,
      ],
      [
        'a view in the place of a table',
        withDatabase('drop table account; create view account as select 1 as id'),
        /no table “account”/,
      ],
      ['a table that is missing', withDatabase('drop table map'), /no table “map”/],
      [
        'a column that is missing',
        withDatabase('alter table network drop column whole'),
        /not one of a study/,
      ],
      [
        'what is no JSON where JSON is read',
        withDatabase("update network set weave = '{'"),
        /cannot be read \(SyntaxError\)/,
      ],
    ])('is refused whole, with a reason: %s', async (_, made, reason) => {
      const before = await list();
      const result = await opened(made());
      expect(result).toEqual({ reason: expect.stringMatching(reason) });
      expect(await list()).toEqual(before);
      expect(readdirSync(join(app.folder, 'studies'))).toEqual([first]);
      expect((result as { reason: string }).reason).not.toContain(app.folder);
    });
  });

  describe('into the archive', () => {
    it('where it is packed and closed, also after a new start, and from which it is opened again', async () => {
      const before = await seen(first, ['archive-study', 'open-study']);
      await step(first, 'archive-study', {});
      const packed = archivePath(app.folder, first);
      const closed = async (): Promise<void> => {
        const { studies, archived } = await list();
        expect([studies.length, archived.map(({ name, messages }) => [name, messages])]).toEqual([
          0,
          [['Test', 900]],
        ]);
        expect([existsSync(packed), existsSync(studyFolder(app.folder, first))]).toEqual([true, false]);
        await app.api.get(`/api/v1/studies/${first}/messages`).expect(404);
      };
      await closed();
      await app.stop();
      // Killed while its folder went: what is left of it cannot be read.
      mkdirSync(studyFolder(app.folder, first));
      writeFileSync(join(studyFolder(app.folder, first), 'study.sqlite'), 'no database');
      await app.begin();
      await closed();
      const { body } = await app.api.post(`/api/v1/studies/${first}/open-again`).expect(201);
      // Somebody who goes away in the middle, and comes back.
      await app.stop();
      await app.begin();
      await closed();
      expect(body).toMatchObject({ study: first });
      const { study, by, ...parameters } = (
        await app.api.post(`/api/v1/studies/${first}/open-again`).expect(201)
      ).body as OpeningStudy;
      expect((await step(study, by, parameters)).state).toBe('done');
      expect(existsSync(packed)).toBe(false);
      expect(await seen(first, ['archive-study', 'open-study'])).toEqual(before);
      const { archived, studies } = await list();
      expect([archived, studies.map(({ name }) => name)]).toEqual([[], ['Test']]);
    }, 60_000);

    it('is removed for good from it', async () => {
      await step(first, 'archive-study', {});
      await app.api.delete(`/api/v1/studies/${first}/for-good`).expect(204);
      expect(await list()).toEqual({ studies: [], deleted: [], archived: [] });
      expect(readdirSync(join(app.folder, 'archive'))).toEqual([]);
    });
  });
});
