import { createHash } from 'node:crypto';
import { buffer } from 'node:stream/consumers';
import { Package } from 'datapackage';
import { ROCrate } from 'ro-crate';
import { fromBufferPromise } from 'yauzl';
import { parse } from 'yaml';
import {
  defaultMap,
  type Network,
  type OpeningStudy,
  type PackageCheck,
  type Plate,
  Routine,
  type Step,
} from '@pebble/contract';
import { routineProblems } from '@pebble/core';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { zipOf } from './files/zip';
import { startedApplication } from './testing/application';
import { PLATE } from './testing/networkSteps';
import { WovenNetworks, type Made } from './testing/wovenNetworks';

const { posts } = makePosts(900);
type Files = Map<string, Buffer>;

async function unpacked(zip: Buffer): Promise<Files> {
  const files: Files = new Map();
  const opened = await fromBufferPromise(zip);
  for await (const entry of opened.eachEntry())
    files.set(entry.fileName, await buffer(await opened.openReadStreamPromise(entry)));
  return files;
}
const packed = (files: Files): Promise<Uint8Array> =>
  zipOf(
    [...files].map(([place, content]) => ({ place, content })),
    '2026-05-01T00:00:00Z',
  );

describe('a package', () => {
  const app = startedApplication();
  const woven = new WovenNetworks(app);
  let made: Made;
  const at = (path: string): string => `/api/v1/studies/${app.study}/networks/${made.id}/${path}`;
  const bytes = async (path: string, query: object = {}): Promise<Buffer> => {
    const { body } = await app.api.get(path).query(query).buffer().responseType('blob').expect(200);
    return body as Buffer;
  };
  const pack = async (query: object = {}): Promise<Files> => unpacked(await bytes(at('package.zip'), query));
  const check = (query: object = {}): Promise<PackageCheck> =>
    app.get<PackageCheck>(`networks/${made.id}/package-check`, query);
  /** Opens a package in a study of its own. */
  const open = async (zip: Uint8Array): Promise<{ study: string; step: Step; refused?: string }> => {
    const { body } = await app.api
      .post('/api/v1/studies/open')
      .set('content-type', 'application/octet-stream')
      .set('x-file-name', 'Lamps.package.zip')
      .send(Buffer.from(zip))
      .expect(201);
    const { study, upload, file, by } = body as OpeningStudy;
    expect(by).toBe('open-package');
    const answer = await app.api
      .post(`/api/v1/studies/${study}/steps`)
      .send({ kind: by, parameters: { upload, file } });
    return { study, step: answer.body as Step, refused: (answer.body as { detail?: string }).detail };
  };
  const name = (naming: object) => app.step('name-people', naming).expect(200);

  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts));
    made = await woven.make({ what: 'accounts', kinds: ['reply', 'mention'] });
    await app.followed('portray-groups');
    await woven.arrange(made.id);
    const description = {
      ...defaultMap,
      show: { ...defaultMap.show, period: { from: Date.UTC(2026, 2, 1), until: Date.UTC(2026, 3, 1) } },
    };
    await app
      .step('keep-plate', { ...PLATE, network: made.id, title: 'March', note: 'A note.', description })
      .expect(200);
  }, 60_000);
  afterEach(() => name({ form: 'as they are' }));

  it('opened in another study gives the same map to the last byte, its plates too', async () => {
    const files = await pack();
    const { study, step } = await open(await packed(files));
    expect(step.error).toBeNull();
    expect(step.result).toMatchObject({ nodes: made.handles.length, plates: 1, notes: [] });
    const network = String(step.result?.['network']);
    const there = `/api/v1/studies/${study}/networks/${network}`;
    for (const format of ['svg', 'png', 'pdf'])
      expect(
        (await bytes(`${there}/figure.${format}`, { ground: 'white' })).equals(
          files.get(`figures/map.${format}`)!,
        ),
      ).toBe(true);
    const plates = (await app.api.get(`/api/v1/studies/${study}/plates`).expect(200)).body as Plate[];
    expect(plates).toMatchObject([{ title: 'March', note: 'A note.', today: { what: 'same' } }]);
    const drawn = await bytes(`${there}/figure.svg`, { ground: 'white', plate: plates[0].id });
    expect(drawn.equals(files.get('figures/plate-1.svg')!)).toBe(true);
    // What was packed is packed again the same.
    const again = await unpacked(await bytes(`${there}/package.zip`));
    for (const place of [
      'map/nodes.arrow',
      'map/edges.arrow',
      'map/days.arrow',
      'map/positions.f32',
      'data/nodes.csv',
      'data/evidence.csv',
    ])
      expect(again.get(place)!.equals(files.get(place)!)).toBe(true);
    // There are no messages behind it, and nobody says so falsely.
    const { weave, opened } = (await app.api.get(there).expect(200)).body as Network;
    expect([weave, opened?.title]).toEqual([null, 'Test']);
    await app.api.get(`${there}/evidence`).query({ node: 0 }).expect(409);
  });

  it('describes every file and every column by open standards, which independent readers take', async () => {
    const files = await pack({ title: 'Lamps', author: 'A. Reader; B. Writer', licence: 'CC BY 4.0' });
    const json = (place: string): Record<string, unknown> =>
      JSON.parse(files.get(place)!.toString()) as Record<string, unknown>;
    // Frictionless Data Package 1, by its own library: the descriptor against its schema, each table against its columns.
    const described = await Package.load(json('datapackage.json'), { basePath: '.' });
    expect(described.errors).toEqual([]);
    expect(described.valid).toBe(true);
    const resources = described.descriptor.resources as {
      path: string;
      hash: string;
      schema?: { fields: { name: string; description: string }[] };
    }[];
    for (const { path, hash } of resources)
      expect(hash).toBe(`sha256:${createHash('sha256').update(files.get(path)!).digest('hex')}`);
    for (const table of ['data/nodes.csv', 'data/ties.csv', 'data/groups.csv', 'data/evidence.csv']) {
      const fields = resources.find(({ path }) => path === table)!.schema!.fields;
      expect(files.get(table)!.toString().split('\r\n')[0]).toBe(fields.map((field) => field.name).join(','));
      for (const { description } of fields) expect(description).toMatch(/\w/);
    }
    // RO-Crate 1.1, by its own library: every part is described.
    const crate = new ROCrate(json('ro-crate-metadata.json'), { array: true, link: true });
    const parts = crate.rootDataset['hasPart'] as { '@id': string; '@type': string[] }[];
    expect(parts.length).toBeGreaterThan(20);
    for (const part of parts)
      expect([part['@type'], files.has(decodeURI(part['@id']))]).toEqual([['File'], true]);
    expect((crate.rootDataset['license'] as { '@id': string }[])[0]['@id']).toContain('creativecommons.org');
    // Citation File Format, read as YAML 1.2, and its works in BibTeX.
    const cff = parse(files.get('CITATION.cff')!.toString()) as Record<string, unknown>;
    expect(cff).toMatchObject({
      'cff-version': '1.2.0',
      title: 'Lamps',
      license: 'CC-BY-4.0',
      authors: [{ name: 'A. Reader' }, { name: 'B. Writer' }],
    });
    const cited = files.get('references.bib')!.toString().match(/^@/gm);
    expect(cited).toHaveLength((cff['references'] as unknown[]).length);
    // Checksums as sha256sum writes them, of everything else.
    const sums = files
      .get('checksums.sha256')!
      .toString()
      .trimEnd()
      .split('\n')
      .map((line) => line.split('  '));
    expect(sums.map(([, place]) => place).sort()).toEqual(
      [...files.keys()].filter((place) => place !== 'checksums.sha256').sort(),
    );
  });

  it('has the record of its steps as PROV-JSON: what is related is there', async () => {
    const prov = JSON.parse((await pack()).get('provenance.json')!.toString()) as Record<
      string,
      Record<string, Record<string, string>>
    >;
    const known = new Set(['entity', 'activity', 'agent'].flatMap((kind) => Object.keys(prov[kind])));
    for (const relation of ['used', 'wasInformedBy', 'wasGeneratedBy', 'hadMember', 'wasAssociatedWith'])
      for (const ends of Object.values(prov[relation])) {
        const named = Object.entries(ends).filter(([role]) => role !== 'prov:time');
        expect(named).toHaveLength(2);
        for (const [, id] of named) expect(known.has(id)).toBe(true);
      }
    expect(Object.values(prov['activity']).map((one) => one['pt:kind'])).toEqual(
      expect.arrayContaining(['import-source', 'weave', 'measure-network', 'arrange-map']),
    );
    expect(Object.values(prov['used'])).toHaveLength(1);
  });

  it('has what of its steps can be run again as a routine that is right', async () => {
    const routine = Routine.parse(JSON.parse((await pack()).get('routine.json')!.toString()));
    expect(routineProblems(routine)).toEqual([]);
    const kinds = routine.steps.map(({ kind }) => kind);
    expect(kinds[0]).toBe('import-source');
    expect(kinds).toEqual(expect.arrayContaining(['weave', 'arrange-map']));
    expect(routine.questions[0]).toMatchObject({ kind: 'file' });
  });

  it('counts what stands behind ties as they weigh', async () => {
    const files = await pack();
    const rows = (place: string): string[][] =>
      files
        .get(place)!
        .toString()
        .trimEnd()
        .split('\r\n')
        .slice(1)
        .map((line) => line.split(','));
    const counts = new Map<string, number>();
    for (const [source, target, , messages] of rows('data/evidence.csv'))
      counts.set(`${source} ${target}`, (counts.get(`${source} ${target}`) ?? 0) + Number(messages));
    for (const [source, target, weight] of rows('data/ties.csv'))
      expect(counts.get(`${source} ${target}`)).toBe(Number(weight));
  });

  it('calls people by their pseudonyms in every file, and is drawn the same when it is opened', async () => {
    await name({ form: 'words' });
    const { leaks, problem, files: told } = await check({ title: 'Lamps' });
    expect([leaks.total, problem]).toEqual([0, null]);
    const files = await pack({ title: 'Lamps' });
    expect(told.map(({ place }) => place).sort()).toEqual([...files.keys()].sort());
    const long = made.handles.filter((handle) => handle.length > 7);
    expect(long.length).toBeGreaterThan(100);
    for (const [place, content] of files) {
      if (/\.(png|pdf|parquet)$/.test(place)) continue;
      const text = content.toString('latin1');
      expect([place, long.filter((handle) => text.includes(handle))]).toEqual([place, []]);
    }
    const { study, step } = await open(await packed(files));
    const figure = await bytes(
      `/api/v1/studies/${study}/networks/${String(step.result?.['network'])}/figure.svg`,
      { ground: 'white' },
    );
    expect(figure.equals(files.get('figures/map.svg')!)).toBe(true);
    const planted = await check({ title: `About ${made.handles[0]}` });
    expect(planted.leaks.leaks.map(({ place }) => place)).toEqual(
      expect.arrayContaining(['README.md', 'datapackage.json', 'CITATION.cff']),
    );
  });

  it('leaves a plate out that cannot be drawn any more, and says so', async () => {
    const formula = { network: made.id, name: 'odd', formula: 'degree * 2' };
    await app.step('compute-column', formula).expect(200);
    const description = { ...defaultMap, size: { ...defaultMap.size, column: 'odd' } };
    await app.step('keep-plate', { ...PLATE, network: made.id, title: 'By odd', description }).expect(200);
    expect((await check()).without.join(' ')).not.toContain('By odd');
    const { study, step } = await open(await packed(await pack()));
    expect(step.result).toMatchObject({ plates: 2 });
    expect(((await app.api.get(`/api/v1/studies/${study}/plates`)).body as Plate[])[1].title).toBe('By odd');
  });

  it('that is dropped among messages says where it is opened', async () => {
    const answer = await app.send('Lamps.package.zip', await packed(await pack())).expect(422);
    expect((answer.body as { detail: string }).detail).toMatch(/a package with a map.*Open it on Weave/);
  });

  it('that was changed by hand is opened, with what no longer fits; one that cannot be drawn is refused with a reason', async () => {
    const files = await pack();
    const changed = new Map(files)
      .set('methods.md', Buffer.from('Other.'))
      .set('more.txt', Buffer.from('More.'));
    changed.delete('page.html');
    const { step } = await open(await packed(changed));
    expect(step.state).toBe('done');
    expect(step.result?.['notes']).toEqual([
      'methods.md does not fit its checksum any more.',
      'page.html is missing.',
      'more.txt was added.',
    ]);
    const cases: readonly [string, Buffer, RegExp][] = [
      ['map/map.json', Buffer.from('{"format":"pebble-thread-map","version":9}'), /later version/],
      ['map/map.json', Buffer.from('{'), /is no JSON/],
      ['map/edges.arrow', Buffer.from('ARROW1'), /no Arrow file/],
      ['map/positions.f32', files.get('map/positions.f32')!.subarray(8), /has places for/],
      ['map/nodes.arrow', files.get('map/edges.arrow')!, /have no column “id”/],
      [
        'map/map.json',
        Buffer.from(
          files.get('map/map.json')!.toString().replaceAll('"column": "inDegree"', '"column": "gone"'),
        ),
        /cannot be drawn/,
      ],
    ];
    for (const [place, content, reason] of cases) {
      const { study, refused } = await open(await packed(new Map(files).set(place, content)));
      expect(refused).toMatch(reason);
      expect(refused).toMatch(/Nothing was taken from it\./);
      expect(
        ((await app.api.get(`/api/v1/studies/${study}/networks`).expect(200)).body as { networks: unknown[] })
          .networks,
      ).toEqual([]);
    }
  });

  it('of a network that hands changed, or with a title of odd signs, is opened as well', async () => {
    const change = {
      network: made.id,
      name: '</script> "שלום"',
      changes: [{ what: 'without-nodes', nodes: [0] }],
    };
    const smaller = (await app.step('change-network', change).expect(200)).body as Step;
    const id = String(smaller.result?.['network']);
    await woven.arrange(id);
    for (let state = ''; state !== 'measured';) state = (await app.get<Network>(`networks/${id}`)).state;
    const zip = await bytes(`/api/v1/studies/${app.study}/networks/${id}/package.zip`, {
      title: '../../<b> "x"',
    });
    const { study, step } = await open(zip);
    const there = `/api/v1/studies/${study}/networks/${String(step.result?.['network'])}`;
    expect(step.result?.['title']).toBe('../../<b> "x"');
    const files = await unpacked(zip);
    expect(
      (await bytes(`${there}/figure.svg`, { ground: 'white' })).equals(files.get('figures/map.svg')!),
    ).toBe(true);
    expect(files.get('figures/map.svg')!.toString()).toContain('1 node taken out');
  });
});
