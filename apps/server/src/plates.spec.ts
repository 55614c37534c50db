import {
  defaultMap,
  type Deleted,
  type Plate,
  type PlateMap,
  type SmallPicture,
  type Step,
} from '@pebble/contract';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { startedApplication } from './testing/application';
import { PLATE } from './testing/networkSteps';
import { WovenNetworks, type Made } from './testing/wovenNetworks';

const { posts } = makePosts(900);

describe('plates', () => {
  const app = startedApplication();
  const woven = new WovenNetworks(app);
  let made: Made;
  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts));
    made = await woven.make({ what: 'accounts', kinds: ['reply', 'mention'] });
  }, 60_000);

  const plates = (): Promise<Plate[]> => app.get<Plate[]>('plates');
  const keep = async (parameters: object = {}): Promise<Step> =>
    (await app.step('keep-plate', { ...PLATE, network: made.id, ...parameters }).expect(200)).body as Step;
  const bytes = async (path: string): Promise<Float32Array> => {
    const { body } = await app.api.get(`/api/v1/studies/${app.study}/${path}`).buffer().expect(200);
    return new Float32Array(Uint8Array.from(body as Buffer).buffer);
  };
  const sent = async (places: Float32Array): Promise<string> => {
    const { body } = await app.api
      .post(`/api/v1/studies/${app.study}/bytes`)
      .set('content-type', 'application/octet-stream')
      .send(Buffer.from(places.buffer))
      .expect(201);
    return (body as { id: string }).id;
  };
  const arrange = (seed: number) =>
    app.step('arrange-map', {
      network: made.id,
      layout: { iterations: 30, seed },
      upload: null,
      iterations: null,
      moved: 0,
    });
  /** Of how many nodes the export says that they have so many ties at least; counted from the file. */
  const withDegree = async (least: number): Promise<number> => {
    const { text } = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${made.id}/export/csv-nodes`)
      .buffer()
      .expect(200);
    const [head, ...lines] = text.trim().replace('\ufeff', '').split('\r\n');
    const column = head.split(',').indexOf('degree');
    return lines.filter((line) => Number(line.split(',')[column]) >= least).length;
  };
  const atLeast = (from: number) => ({
    ...defaultMap,
    show: {
      ...defaultMap.show,
      where: { joined: 'and', conditions: [{ what: 'range', column: 'degree', from }] },
    },
  });

  it('refuses a map that was never arranged, and a selection that is not there', async () => {
    const { body } = await app.step('keep-plate', { ...PLATE, network: made.id }).expect(422);
    expect((body as { detail: string }).detail).toContain('never arranged');
    await arrange(1).expect(200);
    const far = { what: 'node', node: 100_000 };
    const wrong = await app.step('keep-plate', { ...PLATE, network: made.id, selection: far }).expect(422);
    expect((wrong.body as { detail: string }).detail).toContain('no node 100000');
    await app.step('keep-plate', { ...PLATE, network: made.id, title: ' ' }).expect(400);
    expect(await plates()).toEqual([]);
  });

  it('keep what is shown, where nodes are, and the part that is seen', async () => {
    const before = await bytes(`networks/${made.id}/positions`);
    const view = { scale: 0.5, x: 100, y: 80, width: 900, height: 600 };
    const selection = { what: 'node', node: 3 };
    const step = await keep({
      title: 'Who </script> & "all"',
      note: 'A note.',
      description: atLeast(4),
      view,
      selection,
    });
    const [plate] = await plates();
    expect(plate.shown.nodes).toBe(await withDegree(4));
    expect(plate.shown.nodes).toBeLessThan(made.handles.length);
    expect(step.sentence).toBe(
      `The map of “${plate.networkName}” was kept as plate “Who </script> & "all"”: ${plate.shown.nodes} nodes and ${plate.shown.edges} ties.`,
    );
    expect(plate).toMatchObject({ title: 'Who </script> & "all"', note: 'A note.', today: { what: 'same' } });
    expect(plate.caption).toContain(`${plate.shown.nodes} accounts`);
    expect([plate.picture.width, plate.picture.height]).toEqual([1000, 667]);
    // Another arrangement, and another map: the plate stays as it was.
    await arrange(2).expect(200);
    await app.step('describe-map', { network: made.id, description: defaultMap }).expect(200);
    expect(await bytes(`plates/${plate.id}/positions`)).toEqual(before);
    expect(await bytes(`networks/${made.id}/positions`)).not.toEqual(before);
    const map = await app.get<PlateMap>(`plates/${plate.id}`);
    expect([map.view, map.selection]).toEqual([view, selection]);
    expect(map.description.show.where.conditions).toHaveLength(1);
    expect((await plates())[0].today).toEqual({ what: 'same' });
  });

  it('are drawn as figures by their address', async () => {
    const [plate] = await plates();
    const figure = (query: string) =>
      app.api.get(`/api/v1/studies/${app.study}/networks/${made.id}/figure.svg${query}`).buffer();
    const { body } = await figure(`?plate=${plate.id}`).expect(200);
    const text = (body as Buffer).toString();
    expect(text).toContain(`${plate.shown.nodes} accounts with degree of at least 4`);
    const whole = (await figure('').expect(200)).body as Buffer;
    expect(whole.toString()).not.toContain('with degree of at least');
    await figure('?plate=99').expect(404);
  });

  it('take the places that a browser sends, and refuse too few', async () => {
    const places = Float32Array.from({ length: 2 * made.handles.length }, (_, i) => i);
    await keep({ title: 'Sent', upload: await sent(places) });
    const plate = (await plates()).at(-1)!;
    expect(await bytes(`plates/${plate.id}/positions`)).toEqual(places);
    const few = { ...PLATE, network: made.id, upload: await sent(places.slice(2)) };
    await app.step('keep-plate', few).expect(422);
    expect(await plates()).toHaveLength(2);
  });

  it('say when they would look otherwise, and are brought up to date', async () => {
    const description = {
      ...defaultMap,
      show: {
        ...defaultMap.show,
        where: { joined: 'and', conditions: [{ what: 'values', column: 'side', values: ['quay'] }] },
      },
    };
    const mark = (nodes: readonly number[], value: string) =>
      app.step('mark-nodes', { network: made.id, nodes, column: 'side', value }).expect(200);
    await mark([0, 1, 2], 'quay');
    await keep({ title: 'The quay', description });
    const quay = async (): Promise<Plate> => (await plates()).find(({ title }) => title === 'The quay')!;
    expect((await quay()).shown.nodes).toBe(3);
    await mark([5, 6], 'quay');
    expect((await quay()).today).toMatchObject({ what: 'other', shown: { nodes: 5 } });
    const { id } = await quay();
    const step = (await app.step('renew-plate', { plate: id, title: 'The quay' }).expect(200)).body as Step;
    expect(step.sentence).toMatch(
      /^Plate “The quay” was brought up to date: 5 nodes and .+, 3 nodes and .+ before\.$/,
    );
    expect(await quay()).toMatchObject({ today: { what: 'same' }, shown: { nodes: 5 } });
    // As many nodes, others: counts alone would not tell.
    await mark([6], '');
    await mark([7], 'quay');
    expect((await quay()).today).toMatchObject({ what: 'other', shown: { nodes: 5 } });
  });

  it('say when other decisions hold, and when their network is gone', async () => {
    const tidied = (
      await app
        .step('tidy', {
          sort: 'account',
          decisions: [{ key: made.handles[0].toLowerCase(), verdict: { verdict: 'drop' } }],
        })
        .expect(200)
    ).body as Step;
    expect((await plates()).map(({ today }) => today.what)).toEqual(['stale', 'stale', 'stale']);
    await app.step('take-back-tidy', { decisions: tidied.result?.['decisions'] as number[] }).expect(200);
    expect((await plates())[0].today.what).toBe('same');
    await app.step('delete-network', { network: made.id }).expect(200);
    const [gone] = await plates();
    expect([gone.today.what, gone.networkName]).toEqual(['no network', expect.stringMatching(/./)]);
    await app.step('renew-plate', { plate: gone.id, title: gone.title }).expect(422);
    await app.step('restore-network', { network: made.id }).expect(200);
    expect((await plates())[0].today.what).toBe('same');
  });

  it('are named, ordered, duplicated, replaced, deleted and taken back', async () => {
    const [a, b, c] = (await plates()).map(({ id }) => id);
    await app.step('name-plate', { plate: a, title: 'Named', note: '' }).expect(200);
    await app.step('order-plates', { plates: [c, a] }).expect(200);
    expect((await plates()).map(({ id }) => id)).toEqual([c, a, b]);
    const copied = (await app.step('duplicate-plate', { plate: a, title: 'Copy' }).expect(200)).body as Step;
    expect((await plates()).map(({ title }) => title)).toEqual(['The quay', 'Named', 'Sent', 'Copy']);
    await keep({ title: 'Replaced', plate: b });
    expect((await plates()).map(({ title }) => title)).toEqual(['The quay', 'Named', 'Replaced', 'Copy']);
    const copy = Number(copied.result?.['plate']);
    await app.step('delete-plate', { plate: copy, title: 'Copy' }).expect(200);
    await app.api.get(`/api/v1/studies/${app.study}/plates/${copy}`).expect(404);
    await app.api.get(`/api/v1/studies/${app.study}/plates/${copy}/positions`).expect(404);
    await app.step('restore-plate', { plate: copy, title: 'Copy' }).expect(200);
    expect(await plates()).toHaveLength(4);
    // Deleted for good nothing is left of it.
    await app.step('remove-for-good', { plates: [copy] }).expect(422);
    await app.step('delete-plate', { plate: copy, title: 'Copy' }).expect(200);
    expect((await app.get<Deleted[]>('deleted')).map(({ what, name }) => [what, name])).toEqual([
      ['plate', 'Copy'],
    ]);
    const gone = (await app.step('remove-for-good', { plates: [copy] }).expect(200)).body as Step;
    expect(gone.sentence).toBe('1 deleted plate was removed for good.');
    await app.step('restore-plate', { plate: copy, title: 'Copy' }).expect(404);
  });

  it('stand for the study', async () => {
    const cover = (): Promise<SmallPicture> => app.get<SmallPicture>('cover');
    const newest = await cover();
    const [quay, named] = await plates();
    await app.step('choose-cover', { plate: quay.id }).expect(200);
    expect(await cover()).toEqual(quay.picture);
    expect((await cover()).x).toHaveLength(5);
    await app.step('choose-cover', { plate: named.id }).expect(200);
    expect((await plates()).map(({ isCover }) => isCover)).toEqual([false, true, false]);
    await app.step('delete-plate', { plate: named.id, title: 'Named' }).expect(200);
    expect(await cover()).toEqual(newest);
  });
});
