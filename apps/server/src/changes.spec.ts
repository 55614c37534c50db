import type { MapDescription, Network, Step } from '@pebble/contract';
import { BY_HAND } from '@pebble/core';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { startedApplication } from './testing/application';
import { ends, strongest, WovenNetworks, type Made } from './testing/wovenNetworks';

const { posts } = makePosts(600);

describe('a network that hands change', () => {
  const app = startedApplication();
  const { make, read, evidence, table } = new WovenNetworks(app);
  let before: Made;
  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts));
    before = await make({ what: 'accounts', kinds: ['reply', 'mention'], isolates: false });
  }, 120_000);

  const changed = async (changes: object[], why = ''): Promise<Step> =>
    (await app.step('change-network', { network: before.id, name: 'Changed', changes, why })).body as Step;
  const madeOf = async (changes: object[]): Promise<Made> => {
    const step = await changed(changes);
    expect(step.error).toBeNull();
    return read(step, String(step.result?.['network']));
  };
  const refusal = async (changes: object[]): Promise<string> => {
    const asked = { network: before.id, name: 'Changed', changes };
    const { body } = await app.step('change-network', asked).expect(422);
    return (body as { detail: string }).detail;
  };
  /** How many messages go from some nodes to the others. */
  const fromHalf = async ({ id, handles }: Made, half: ReadonlySet<number>): Promise<number> => {
    const all = [...handles.keys()];
    const mark = { network: id, column: 'Half' };
    await app.step('mark-nodes', { ...mark, nodes: all, value: 'other' }).expect(200);
    await app.step('mark-nodes', { ...mark, nodes: [...half], value: 'one' }).expect(200);
    const groups = await make({ what: 'groups', network: id, column: 'Half' });
    const source = groups.nodes['group'].indexOf('one' as never);
    return (await evidence(groups.id, { source, target: 1 - source })).total;
  };
  const tieOf = ({ edges }: Made, source: number, target: number): number =>
    Array.from(edges['source'] as Uint32Array).findIndex(
      (a, e) => a === source && edges['target'][e] === target,
    );

  it('stands beside the one before, with the same messages behind what was left as it was', async () => {
    const e = strongest(before);
    const tie = ends(before, e);
    const out = before.handles.findIndex((_, v) => v !== tie.source && v !== tie.target);
    const made = await madeOf([{ what: 'without-nodes', nodes: [out] }]);
    expect(made.handles).toEqual(before.handles.filter((_, v) => v !== out));
    const at = (node: number): number => (node > out ? node - 1 : node);
    const now = { source: at(tie.source), target: at(tie.target) };
    expect((await evidence(made.id, now)).total).toBe((await evidence(before.id, tie)).total);
    expect(await table(before.id, 'nodes')).toMatchObject({ handle: before.handles });
    const { changed: said, sentence } = await network(made.id);
    expect(said).toMatchObject({ of: before.id, name: 'Test' });
    expect(sentence).toContain('Changed by hand: 1 node taken out with');
  });

  it('shows behind a merged node the messages of all that it is made of', async () => {
    const e = strongest(before);
    const { source, target } = ends(before, e);
    const third = before.handles.findIndex((_, v) => v !== source && v !== target);
    const made = await madeOf([{ what: 'merged', nodes: [source, third], into: source }]);
    const node = made.handles.indexOf(before.handles[source]);
    const [a, b] = await Promise.all([
      evidence(before.id, { node: source }),
      evidence(before.id, { node: third }),
    ]);
    expect((await evidence(made.id, { node })).total).toBe(a.total + b.total);
    const there = made.handles.indexOf(before.handles[target]);
    const weight = made.edges['weight'][tieOf(made, node, there)];
    expect((await evidence(made.id, { source: node, target: there })).total).toBe(weight);
  });

  it('marks what was added; nothing stands behind it', async () => {
    const n = before.handles.length;
    const made = await madeOf([
      { what: 'new-node', name: 'Harbour office' },
      { what: 'new-tie', source: n, target: 0, weight: 2 },
    ]);
    const e = tieOf(made, n, 0);
    expect(made.edges[BY_HAND][e]).toBe('added');
    expect(made.nodes[BY_HAND][n]).toBe('added');
    expect((await evidence(made.id, { source: n, target: 0 })).total).toBe(0);
    const dailyTieCounts = await table(made.id, 'daily-tie-counts');
    expect(Array.from(dailyTieCounts['edge'] as Uint32Array)).not.toContain(e);
  });

  it('has groups behind whose ties nothing stands of a tie that was taken out', async () => {
    const e = strongest(before);
    const { source, target } = ends(before, e);
    const made = await madeOf([{ what: 'without-ties', ties: [{ source, target }] }]);
    expect(tieOf(made, source, target)).toBe(-1);
    // Each of the two in another half.
    const half = new Set([...before.handles.keys()].filter((v) => v % 2 === 1));
    half.add(source).delete(target);
    const [fewer, all] = [await fromHalf(made, half), await fromHalf(before, half)];
    expect(all - fewer).toBe(before.edges['weight'][e]);
    expect(fewer).toBeGreaterThan(0);
  });

  it('keeps the places of its nodes, and measures itself anew', async () => {
    const n = before.handles.length;
    const bytes = Buffer.alloc(8 * n);
    for (let v = 0; v < 2 * n; v++) bytes.writeFloatLE(v, 4 * v);
    const { body } = await app.api
      .post(`/api/v1/studies/${app.study}/bytes`)
      .set('content-type', 'application/octet-stream')
      .send(bytes)
      .expect(201);
    const arranged = { network: before.id, layout: {}, iterations: 5, moved: 0 };
    await app.step('arrange-map', { ...arranged, upload: (body as { id: string }).id }).expect(200);
    const made = await madeOf([{ what: 'without-nodes', nodes: [0] }]);
    const { body: places } = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${made.id}/positions`)
      .buffer(true)
      .expect(200);
    expect((places as Buffer).readFloatLE(0)).toBe(2);
    for (let i = 0; i < 400 && (await network(made.id)).state !== 'measured'; i++)
      await new Promise((done) => setTimeout(done, 50));
    expect((await network(made.id)).state).toBe('measured');
  });

  it('shows itself by columns that it has, where the one before went by computed ones', async () => {
    const { body: saved } = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${before.id}/map`)
      .expect(200);
    const { description } = saved as { description: MapDescription };
    const size = { ...description.size, column: 'pageRank' };
    await app.step('describe-map', { network: before.id, description: { ...description, size } }).expect(200);
    const made = await madeOf([{ what: 'without-nodes', nodes: [2] }]);
    const { body } = await app.api.get(`/api/v1/studies/${app.study}/networks/${made.id}/map`).expect(200);
    expect((body as { description: MapDescription }).description.size.column).toBe('inDegree');
    await app.step('describe-map', { network: before.id, description }).expect(200);
  });

  it('refuses what cannot be done, and says that nothing was changed', async () => {
    const all = { what: 'without-nodes', nodes: before.handles.map((_, v) => v) };
    expect(await refusal([all])).toContain('No node would be left. Nothing was changed.');
    const twice = { what: 'without-nodes', nodes: [0] };
    expect(await refusal([twice, twice])).toContain('was taken out before. Nothing was changed.');
  });

  it('is said in the logbook, with its reason', async () => {
    const step = await changed([{ what: 'without-nodes', nodes: [1] }], 'It is a machine.');
    expect(step.sentence).toMatch(
      /^The network “Changed” was made of “Test” by hand: 1 node taken out with \d+ ties\. Why: It is a machine\.$/,
    );
  });

  const network = async (id: string): Promise<Network> =>
    (await app.api.get(`/api/v1/studies/${app.study}/networks/${id}`).expect(200)).body as Network;
});
