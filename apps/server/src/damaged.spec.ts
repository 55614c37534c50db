import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import type { Problem, Step } from '@pebble/contract';
import { makePosts, postsAsCsv } from '@pebble/standins';
import { networkPath } from './files/places';
import { withoutPaths } from './files/damage';
import { startedApplication } from './testing/application';

/** What may happen to a file. */
const DAMAGES: Readonly<Record<string, (path: string) => void>> = {
  missing: () => undefined,
  empty: (path) => writeFileSync(path, ''),
  'cut off': (path) => writeFileSync(path, kept.get(path)!.subarray(0, 300)),
  'cut off, with an end': (path) =>
    writeFileSync(path, Buffer.concat([kept.get(path)!.subarray(0, 300), Buffer.from('ARROW1')])),
  'something else': (path) => writeFileSync(path, 'ARROW1 and nothing more of it ARROW1'),
  'a folder': (path) => mkdirSync(path),
};
const kept = new Map<string, Buffer>();

describe('a data folder that is damaged', () => {
  const app = startedApplication();
  let network: string;
  beforeAll(async () => {
    await app.take('posts.csv', postsAsCsv(makePosts(300, 5).posts));
    const ofAccounts = { what: 'accounts', kinds: ['reply', 'mention'] };
    const ofHashtags = { what: 'together', things: 'hashtag', mostUsed: 20 };
    for (const weave of [ofAccounts, ofHashtags]) {
      const step = (await app.step('weave', { name: 'A', weave }).expect(200)).body as Step;
      network = String(step.result?.['network']);
      for (let state = ''; state !== 'measured';) {
        await new Promise((done) => setTimeout(done, 50));
        ({ state } = (await app.api.get(`/api/v1/studies/${app.study}/networks/${network}`).expect(200))
          .body as {
          state: string;
        });
      }
      for (const part of ['nodes', 'edges', 'evidence'] as const) {
        const path = networkPath(app.studyFolder, network, part);
        if (existsSync(path)) kept.set(path, readFileSync(path));
      }
    }
    expect(kept.size).toBe(5);
  }, 120_000);
  afterEach(() => {
    for (const [path, bytes] of kept) {
      rmSync(path, { recursive: true, force: true });
      writeFileSync(path, bytes);
    }
  });

  const PATHS = [
    'nodes.arrow',
    'edges.arrow',
    'daily-tie-counts.arrow',
    'evidence?node=0',
    'evidence?community=1',
    'portrait/1',
    'titles?column=community&least=2',
    'message-ties/1',
    'small-picture',
    'figure.svg',
    'export/graphml',
    'export/nodes-csv',
  ];

  it.each(Object.keys(DAMAGES))('says what is damaged, and goes on: %s', async (damage) => {
    for (const path of kept.keys()) {
      network = basename(dirname(path));
      rmSync(path, { recursive: true, force: true });
      DAMAGES[damage](path);
      let said = 0;
      for (const asked of PATHS) {
        const answer = await app.api.get(`/api/v1/studies/${app.study}/networks/${network}/${asked}`);
        expect([asked, answer.status, answer.status < 500]).toEqual([asked, answer.status, true]);
        if (answer.status !== 410) continue;
        said++;
        expect((answer.body as Problem).detail).toMatch(
          /^The file .* of this network is missing or damaged\. .*Make the network again/,
        );
        expect(JSON.stringify(answer.body)).not.toContain(app.folder);
      }
      expect(said).toBeGreaterThan(0);
      rmSync(path, { recursive: true, force: true });
      writeFileSync(path, kept.get(path)!);
    }
    await app.api.get(`/api/v1/studies/${app.study}/networks/${network}/evidence?node=0`).expect(200);
  });

  it('says so of a step, too, and keeps everything else', async () => {
    const path = networkPath(app.studyFolder, network, 'edges');
    rmSync(path);
    const { body } = await app.step('group-nodes', {
      network,
      name: 'Parts',
      settings: { method: 'weak' },
    });
    expect(JSON.stringify(body)).not.toContain(app.folder);
    expect((body as Problem).detail).toMatch(/ties of this network is missing or damaged/);
    expect(await app.get('messages')).toMatchObject({ total: 300 });
  });

  it('does not show a small picture that was broken, but makes it anew', async () => {
    const path = join(app.studyFolder, 'networks', network, 'small-picture.json');
    writeFileSync(path, '{"of": 1');
    const answer = await app.api.get(`/api/v1/studies/${app.study}/networks/${network}/small-picture`);
    expect(answer.status).toBeLessThan(500);
  });
});

describe('withoutPaths', () => {
  it.each([
    [
      "ENOENT: no such file or directory, open '/home/ann/.pebble/x.arrow'",
      "ENOENT: no such file or directory, open '…'",
    ],
    ['C:\\Users\\ann\\data\\x: broken', '…: broken'],
    ['3/4 of it, and/or more', '3/4 of it, and/or more'],
  ])('%s', (text, plain) => {
    expect(withoutPaths(text)).toBe(plain);
  });
});
