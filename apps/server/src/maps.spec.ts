import { defaultMap, LayoutMethod, type KeptLook, type Step } from '@pebble/contract';
import { lookOf } from '@pebble/core';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { startedApplication } from './testing/application';
import { WovenNetworks, type Made } from './testing/wovenNetworks';

const { posts } = makePosts(600);

describe('maps', () => {
  const app = startedApplication();
  const woven = new WovenNetworks(app);
  let made: Made;
  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts));
    made = await woven.make({ what: 'accounts', kinds: ['reply', 'mention'] });
  }, 60_000);

  const arrange = (layout: object) =>
    app.step('arrange-map', { network: made.id, layout, upload: null, iterations: null, moved: 0 });

  it('goes on on the server from where the nodes are, and says so', async () => {
    const placesOf = async (): Promise<Float32Array> => {
      const { body } = await app.api
        .get(`/api/v1/studies/${app.study}/networks/${made.id}/positions`)
        .buffer()
        .expect(200);
      return new Float32Array(Uint8Array.from(body as Buffer).buffer);
    };
    await arrange({ iterations: 300 }).expect(200);
    const before = await placesOf();
    const step = (await arrange({ begin: 'as it is', separate: false }).expect(200)).body as Step;
    expect(step.sentence).toContain('going on from where the nodes were');
    expect(step.sentence).toContain('isolates left where they were');
    const after = await placesOf();
    const spread = Math.max(...before) - Math.min(...before);
    const moved = after.reduce((sum, at, i) => sum + Math.abs(at - before[i]), 0) / after.length;
    expect(moved).toBeGreaterThan(0);
    expect(moved).toBeLessThan(0.2 * spread);
  });

  it.each(LayoutMethod.options.filter((method) => method !== 'few-crossings'))(
    'are arranged on the server: %s, and the methods text says how',
    async (method) => {
      const step = (await arrange({ method, iterations: 60 }).expect(200)).body as Step;
      expect(step.sentence).toMatch(/^The map was arranged (by|as|in|with|round|at) .+\(.+\)/);
      const { body } = await app.api
        .get(`/api/v1/studies/${app.study}/networks/${made.id}/positions`)
        .buffer()
        .expect(200);
      const places = new Float32Array(Uint8Array.from(body as Buffer).buffer);
      expect(places).toHaveLength(2 * made.handles.length);
      expect(places.every(Number.isFinite)).toBe(true);
    },
  );

  it('are refused where the method cannot do it, and stay as they were', async () => {
    const before = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${made.id}/positions`)
      .buffer()
      .expect(200);
    const { body } = await arrange({ method: 'few-crossings' }).expect(422);
    expect((body as { detail: string }).detail).toContain('at most 60 nodes');
    const after = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${made.id}/positions`)
      .buffer()
      .expect(200);
    expect(after.body).toEqual(before.body);
  });

  it('go out with the table of nodes', async () => {
    await arrange({ method: 'grid' }).expect(200);
    const { body } = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${made.id}/positions`)
      .buffer()
      .expect(200);
    const places = new Float32Array(Uint8Array.from(body as Buffer).buffer);
    const { text } = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${made.id}/export/csv-nodes`)
      .buffer()
      .expect(200);
    const [head, first] = text.trim().split('\r\n');
    expect(head.split(',').slice(-2)).toEqual(['x', 'y']);
    expect(first.split(',').slice(-2).map(Number)).toEqual([places[0], places[1]]);
  });

  describe('pictures of nodes', () => {
    const image = (text: string): string => `data:image/png;base64,${Buffer.from(text).toString('base64')}`;
    const add = async (value: string) => {
      const { body } = await app.api
        .post(`/api/v1/studies/${app.study}/bytes`)
        .set('content-type', 'application/octet-stream')
        .send(Buffer.from(value));
      return app.step('add-pictures', { upload: (body as { id: string }).id });
    };
    const list = async (): Promise<unknown> =>
      (await app.api.get(`/api/v1/studies/${app.study}/pictures`).expect(200)).body;

    it('are kept by name, replaced by those of the same name, and removed', async () => {
      const first = [
        { name: 'ann', image: image('a') },
        { name: 'ben', image: image('b') },
      ];
      const step = (await add(JSON.stringify(first))).body as Step;
      expect(step.sentence).toBe('For nodes 2 pictures from image files were added.');
      const again = (await add(JSON.stringify([{ name: 'ben', image: image('c') }]))).body as Step;
      expect(again.sentence).toContain('1 picture from image files was added (1 of them in place of others)');
      expect(await list()).toEqual([first[0], { name: 'ben', image: image('c') }]);
      const gone = (await app.step('remove-pictures', {}).expect(200)).body as Step;
      expect(gone.sentence).toBe('The pictures of nodes were removed (2).');
      expect(await list()).toEqual([]);
    });

    it.each([
      ['what is no list of pictures', '{"name":', 'did not arrive whole'],
      [
        'a picture that could run as code',
        JSON.stringify([{ name: 'x', image: 'data:image/svg+xml,<svg/>' }]),
        'not a PNG or JPEG picture. (picture 1)',
      ],
      ['a picture without a name', JSON.stringify([{ name: ' ', image: image('a') }]), 'has no name'],
    ])('are refused: %s; the others stay', async (_, value, why) => {
      const there = [{ name: 'dora', image: image('d') }];
      await add(JSON.stringify(there));
      const answer = await add(value);
      expect(answer.status).toBe(422);
      expect((answer.body as { detail: string }).detail).toContain(why);
      expect(await list()).toEqual(there);
    });
  });

  it('say in the methods text what they show, with their filters', async () => {
    const conditions = [{ what: 'named', text: 'shop | cafe', not: true }];
    const description = {
      ...defaultMap,
      show: { ...defaultMap.show, where: { joined: 'and', conditions }, largestComponent: true },
    };
    const step = (await app.step('describe-map', { network: made.id, description }).expect(200)).body as Step;
    expect(step.sentence).toContain('shown are nodes of the largest component, not named “shop” or “cafe”');
  });

  it('have looks that are kept by a name, replaced, and forgotten', async () => {
    const looks = async (): Promise<KeptLook[]> =>
      (await app.api.get('/api/v1/looks').expect(200)).body as KeptLook[];
    const look = lookOf(defaultMap);
    await app.step('keep-look', { name: 'Our journal', look }).expect(200);
    const other = { ...look, outlined: true };
    await app.step('keep-look', { name: 'Our journal', look: other }).expect(200);
    expect(await looks()).toEqual([{ name: 'Our journal', look: other }]);
    await app.step('keep-look', { name: '  ', look }).expect(400);
    await app.step('forget-look', { name: 'Our journal' }).expect(200);
    expect(await looks()).toEqual([]);
  });
});
