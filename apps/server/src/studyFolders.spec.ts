import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import type { Problem, Step, StudyList } from '@pebble/contract';
import { catalogueFile } from './storage/catalogue';
import { connect, studyFile, studyFolder } from './storage/open';
import { startedApplication, type Looked } from './testing/application';

describe('studies, each in a folder of its own', () => {
  const app = startedApplication();
  let other: string;
  const list = async (): Promise<StudyList> =>
    (await app.api.get('/api/v1/studies').expect(200)).body as StudyList;
  const begin = async (name: string): Promise<string> =>
    ((await app.api.post('/api/v1/studies').send({ name }).expect(201)).body as { id: string }).id;
  const run = async (study: string, kind: string, parameters: object) =>
    app.api.post(`/api/v1/studies/${study}/steps`).send({ kind, parameters });

  it('work side by side: a long import in one keeps no other waiting', async () => {
    const rows = Array.from({ length: 45_000 }, (_, i) => `${i},ann${i % 900},"message ${i} @bob${i % 70}"`);
    const first = app.study;
    const large = await app.look('large.csv', `id,author,text\n${rows.join('\n')}\n`);
    app.study = other = await begin('Another');
    const small = await app.look('one.csv', 'id,author,text\n1,zoe,hello @ann\n');
    app.study = first;
    const take = async (study: string, file: string, { id, preview }: Looked): Promise<Step> =>
      (await run(study, 'import-source', { upload: id, file, name: file, reading: preview.reading }))
        .body as Step;
    const [long, short] = await Promise.all([take(first, 'large.csv', large), take(other, 'one.csv', small)]);
    expect([long.state, short.state]).toEqual(['done', 'done']);
    // The second to be asked for began before the first one ended.
    expect(short.startedAt < long.endedAt!).toBe(true);
    expect((await list()).studies.map(({ name, messages }) => [name, messages]).sort()).toEqual([
      ['Another', 1],
      ['Test', 45_000],
    ]);
  }, 60_000);

  it('number their steps for themselves, and tell what happens to their own listeners alone', async () => {
    const { steps } = (await app.api.get(`/api/v1/studies/${other}/logbook`)).body as { steps: Step[] };
    expect(steps.map(({ id, study }) => [id, study]).at(-1)).toEqual([1, other]);
  });

  it('are opened though one of them cannot be read, which is kept as it is and shown with the reason', async () => {
    await app.stop();
    const file = studyFile(app.studyFolder);
    const kept = readFileSync(file);
    for (const damage of [Buffer.alloc(5000, 0x5a), Buffer.from(''), null]) {
      for (const end of ['-wal', '-shm', '']) rmSync(`${file}${end}`, { force: true });
      if (damage) writeFileSync(file, damage);
      await restart();
      const { studies } = await list();
      const broken = studies.find(({ id }) => id === app.study)!;
      // An empty file is a database without tables.
      expect(broken).toMatchObject({ name: 'Test', messages: 45_000, broken: expect.any(String) });
      expect(studies.find(({ id }) => id === other)!.broken).toBeNull();
      const answer = await app.api.get(`/api/v1/studies/${app.study}/messages`);
      expect([answer.status, (answer.body as Problem).detail]).toEqual([410, broken.broken]);
      expect(broken.broken).toMatch(/this study.*(?:damaged|missing|cannot be read|holds no study)/);
      expect(broken.broken).not.toContain(app.folder);
      await app.api.get(`/api/v1/studies/${other}/messages`).expect(200);
      expect(existsSync(app.studyFolder)).toBe(true);
      await app.stop();
      if (damage) expect(readFileSync(file).equals(damage) || damage.length === 0).toBe(true);
    }
    writeFileSync(file, kept);
    await restart();
    expect((await list()).studies.find(({ id }) => id === app.study)).toMatchObject({ broken: null });
  }, 120_000);

  it('are found again where the list of them is lost or broken', async () => {
    const before = await list();
    for (const damage of [null, Buffer.alloc(9000, 0x5a)]) {
      await app.stop();
      for (const end of ['-wal', '-shm', '']) rmSync(`${catalogueFile(app.folder)}${end}`, { force: true });
      if (damage) writeFileSync(catalogueFile(app.folder), damage);
      await restart();
      expect(await list()).toEqual(before);
    }
  }, 60_000);

  it('are known again when a folder comes back, and a folder that was never finished is taken away', async () => {
    const aside = `${app.folder}-aside`;
    await app.stop();
    cpSync(studyFolder(app.folder, other), aside, { recursive: true });
    rmSync(studyFolder(app.folder, other), { recursive: true });
    mkdirSync(studyFolder(app.folder, '00000000aa'));
    await restart();
    expect((await list()).studies.find(({ id }) => id === other)!.broken).toContain('missing');
    expect(existsSync(join(app.folder, 'studies', '00000000aa'))).toBe(false);
    await app.stop();
    renameSync(aside, studyFolder(app.folder, other));
    await restart();
    expect((await list()).studies.find(({ id }) => id === other)).toMatchObject({
      broken: null,
      messages: 1,
    });
  }, 60_000);

  it('are kept where both their database and the list of studies are lost: nothing that somebody made is taken away', async () => {
    const lost = studyFolder(app.folder, 'aaaaaaaa01');
    await app.stop();
    for (const end of ['-wal', '-shm', '']) rmSync(`${catalogueFile(app.folder)}${end}`, { force: true });
    for (const database of [null, '']) {
      mkdirSync(join(lost, 'networks', 'n'), { recursive: true });
      writeFileSync(join(lost, 'networks', 'n', 'nodes.arrow'), 'made');
      if (database !== null) writeFileSync(studyFile(lost), database);
      await restart();
      const broken = (await list()).studies.find(({ id }) => id === 'aaaaaaaa01')!;
      expect(broken.broken).toMatch(/missing|holds no study/);
      await app.stop();
      expect(readFileSync(join(lost, 'networks', 'n', 'nodes.arrow'), 'utf8')).toBe('made');
    }
    await restart();
    await app.api.delete('/api/v1/studies/aaaaaaaa01/for-good').expect(204);
    expect(existsSync(lost)).toBe(false);
  }, 60_000);

  it('are there at the next start where one was duplicated, and killed before the copy came to its place', async () => {
    const twin = studyFolder(app.folder, 'bbbbbbbb02');
    await app.stop();
    cpSync(studyFolder(app.folder, other), `${twin}.waiting`, { recursive: true });
    const store = connect(studyFolder(app.folder, other));
    store.raw.exec(`insert into staged_file (place, comes) values ('../bbbbbbbb02', 1)`);
    await store.close();
    mkdirSync(`${studyFolder(app.folder, 'cccccccc03')}.waiting`);
    await restart();
    expect((await list()).studies.find(({ id }) => id === 'bbbbbbbb02')).toMatchObject({
      messages: 1,
      broken: null,
    });
    expect(readdirSync(join(app.folder, 'studies')).some((name) => name.endsWith('.waiting'))).toBe(false);
  }, 60_000);

  /** Starts the application again with what is in its folder. */
  const restart = (): Promise<void> => app.begin();
});
