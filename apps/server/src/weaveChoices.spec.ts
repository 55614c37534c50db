import type { Network, Step } from '@pebble/contract';
import { asCsv, makeFollowers, makePosts, makeVideos, postsAsJsonLines } from '@pebble/standins';
import { startedApplication } from './testing/application';
import { ends, strongest, WovenNetworks } from './testing/wovenNetworks';

const { posts, truth } = makePosts(2000);
const videos = makeVideos(12, 400);
const [list] = makeFollowers();

describe('choices of a weave', () => {
  const app = startedApplication();
  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts));
    await app.take('videos.csv', asCsv(videos.videos));
    await app.take('comments.csv', asCsv(videos.comments));
    await app.take(`followers of ${list.followed}.csv`, asCsv(list.followers));
  }, 120_000);
  const { estimate, make, evidence, read } = new WovenNetworks(app);

  const networks = async (): Promise<Network[]> => app.list<Network>('networks');
  const addresses = { what: 'accounts', kinds: ['reply', 'quote', 'mention', 'repost'], isolates: false };

  describe('which messages are taken', () => {
    const replies = { name: 'Replies', filter: { kind: 'reply' } };

    it('only those of a filter, also behind nodes and ties', async () => {
      const made = await make({ ...addresses, only: replies });
      const all = await estimate(addresses);
      expect(made.edges['source'].length).toBeLessThan(all.edges);
      expect(made.step.sentence).toContain('only messages of the filter “Replies” (replies)');
      expect(made.step.sentence).toContain('were left out by the choice of messages');
      const e = strongest(made);
      const behind = await evidence(made.id, ends(made, e));
      expect(behind.total).toBe(made.edges['weight'][e]);
      const { messages } = await evidence(made.id, { node: ends(made, e).source });
      for (const { kind } of [...messages, ...behind.messages]) expect(kind).toBe('reply');
    });

    it('without those of another filter, so that both parts together are the whole', async () => {
      const [with_, without] = [
        await estimate({ ...addresses, only: replies }),
        await estimate({ ...addresses, except: replies }),
      ];
      const whole = await estimate(addresses);
      expect(with_.messages + without.messages).toBe(whole.messages);
    });

    it('without those of sources', async () => {
      const [{ id, name }] = (await app.list<{ id: number; name: string }>('sources')).filter((source) =>
        source.name.includes('tidepost'),
      );
      const size = await estimate({ ...addresses, withoutSources: [{ id, name }] });
      const whole = await estimate(addresses);
      expect(size.messages).toBeLessThan(whole.messages / 2);
      const tags = await estimate({
        what: 'together',
        things: 'hashtag',
        only: { name: 'Nothing', filter: { text: 'xylophonic' } },
      });
      expect(tags.emptiedBy).toBe('No message is left by the choice of messages.');
    });
  });

  it('counts the mentions of reposted texts by choice, with the same messages behind ties', async () => {
    const recipe = { ...addresses, kinds: ['mention'], repostMentions: false };
    const made = await make(recipe);
    const whole = await estimate({ ...recipe, repostMentions: true });
    expect(made.edges['source'].length).toBeLessThan(whole.edges);
    const e = strongest(made);
    const { total, messages } = await evidence(made.id, ends(made, e));
    expect(total).toBe(made.edges['weight'][e]);
    for (const { kind } of messages) expect(kind).not.toBe('repost');
  });

  it('counts the days of every tie', async () => {
    const made = await make(addresses);
    const e = strongest(made);
    const { messages } = await evidence(made.id, ends(made, e));
    const days = new Set(messages.map(({ time }) => Math.floor(time! / 86_400_000)));
    expect(made.edges['days'][e]).toBe(days.size);
  });

  it.each(['hashtag', 'mention', 'word'])(
    'ties a %s to what stands near it, in fewer messages than in the whole text',
    async (things) => {
      const recipe = { what: 'together', things, mostUsed: 80, usedAtLeast: 2 };
      const near = await make({ ...recipe, unit: 'near', within: 2 });
      const same = await estimate(recipe);
      expect(near.edges['source'].length).toBeLessThanOrEqual(same.edges);
      if (near.edges['source'].length === 0) return;
      const e = strongest(near);
      const { total } = await evidence(near.id, ends(near, e));
      expect(total).toBe(near.edges['weight'][e]);
    },
  );

  it('ties names near each other', async () => {
    const names = ['Lighting Board', 'Harbour Office', 'Sallowmere'];
    await app.step('find-names', { by: 'list', names, match: 'words', kind: 'organisation' }).expect(200);
    const wide = await make({ what: 'together', things: 'name', unit: 'near', within: 100, isolates: true });
    const same = await estimate({ what: 'together', things: 'name', isolates: true });
    expect([wide.edges['source'].length, wide.handles.length]).toEqual([same.edges, same.nodes]);
    expect(new Set(wide.nodes['kind'] as readonly string[])).toEqual(new Set(['organisation']));
  });

  it('ties messages with a similar wording: the texts of the ring stand together', async () => {
    const made = await make({ what: 'alike', nodes: 'message', likeness: 0.9, atLeast: 5 });
    const ring = new Set(truth.ring.map((handle) => handle.toLowerCase()));
    const byRing = made.handles.filter((label) => ring.has(label.split(':')[0].toLowerCase()));
    expect(byRing.length).toBeGreaterThan(10);
    const { total, messages } = await evidence(made.id, ends(made, strongest(made)));
    expect([total, messages.length]).toEqual([2, 2]);
    expect(made.step.sentence).toContain('Messages tied when their wording is alike (90 % or more');
    const one = await evidence(made.id, { node: 0 });
    expect(one.total).toBe(1);
  });

  it('ties accounts by the words that they share', async () => {
    const made = await make({ what: 'alike', nodes: 'account', likeness: 0, atLeast: 12 });
    expect((made.edges['weight'] as Float64Array).every((weight) => weight >= 12)).toBe(true);
    const { messages } = await evidence(made.id, ends(made, 0));
    expect(new Set(messages.map(({ author }) => author.handle)).size).toBe(2);
  });

  it('ends a weave that counts for long when it is cancelled, and goes on with the next step', async () => {
    const long = { what: 'alike', nodes: 'account', likeness: 0, atLeast: 1, reposts: true };
    const asked = app.step('weave', { name: 'Long', weave: long }).then((answer) => answer);
    let running: Step | undefined;
    for (let i = 0; i < 1000 && !running; i++) {
      await new Promise((done) => setTimeout(done, 10));
      const { steps } = await app.get<{ steps: Step[] }>('logbook');
      running = steps.find(({ state, parameters }) => state === 'running' && parameters['name'] === 'Long');
    }
    await app.api.post(`/api/v1/studies/${app.study}/steps/${running!.id}/cancel`);
    await asked;
    const { steps } = await app.get<{ steps: Step[] }>('logbook');
    const ended = steps.find(({ id }) => id === running!.id)!;
    expect(ended.state).toBe('cancelled');
    expect(ended.error).toContain('Nothing of this step was kept');
    await make({ what: 'two-mode', things: 'hashtag', usedAtLeast: 20 });
  });

  it('carries profiles, items and scores along as columns of the nodes', async () => {
    const follows = await make({ what: 'follows' });
    expect(follows.nodes['followers']).toBeInstanceOf(Float64Array);
    const items = await make({ what: 'together', things: 'item', unit: 'author' });
    expect(items.nodes['published']).toBeDefined();
    expect(new Set(items.nodes['channel'] as readonly string[]).size).toBeGreaterThan(2);
    await app.step('score-messages', { scorer: 'tone' }).expect(200);
    const accounts = await make(addresses);
    const tone = accounts.nodes['tone'] as Float64Array;
    expect(tone.some((value) => value < 0) && tone.some((value) => value > 0)).toBe(true);
    const network = (await networks()).find(({ id }) => id === accounts.id)!;
    expect(network.columns).toContainEqual(
      expect.objectContaining({ name: 'tone', title: 'mean tone', type: 'number' }),
    );
  });

  describe('slices in time', () => {
    const DAY = 86_400_000;
    const times = posts.map((post) => Date.parse(post.created_at));
    const from = Math.floor(Math.min(...times.filter((time) => !Number.isNaN(time))) / DAY) * DAY;
    const recipe = { ...addresses, from, until: from + 14 * DAY };
    let sliced: Step;
    let slices: Network[];

    beforeAll(async () => {
      const { body } = await app
        .step('weave-slices', { name: 'By week', weave: recipe, by: 'week' })
        .expect(200);
      sliced = body as Step;
      for (let i = 0; i < 400; i++) {
        const { steps } = await app.get<{ steps: Step[] }>('logbook');
        if (steps.some(({ kind, state }) => kind === 'share-arrangement' && state === 'done')) break;
        await new Promise((done) => setTimeout(done, 50));
      }
      slices = (await networks())
        .filter(({ slice }) => slice?.of === sliced.result?.['network'])
        .sort((a, b) => a.slice!.place - b.slice!.place);
    }, 60_000);

    it('are networks of their own, whose weights add up to the whole', async () => {
      expect(slices.length).toBeGreaterThanOrEqual(2);
      expect(slices[0].name).toMatch(/^By week: Week of \d+ /);
      const whole = await read(sliced, String(sliced.result?.['network']));
      const sum = ({ edges }: typeof whole): number =>
        (edges['weight'] as Float64Array).reduce((a, b) => a + b, 0);
      let parts = 0;
      for (const { id } of slices) parts += sum(await read(sliced, id));
      expect(parts).toBe(sum(whole));
      expect(sliced.sentence).toContain('the whole time and each week');
    });

    it('share one arrangement', async () => {
      const places = async (id: string): Promise<Map<number, string>> => {
        const { nodes } = await read(sliced, id);
        const { body } = await app.api
          .get(`/api/v1/studies/${app.study}/networks/${id}/positions`)
          .buffer(true)
          .expect(200);
        const xy = body as Buffer;
        return new Map(
          Array.from(nodes['id'] as Uint32Array, (account, v) => [
            account,
            `${xy.readFloatLE(8 * v)} ${xy.readFloatLE(8 * v + 4)}`,
          ]),
        );
      };
      const whole = await places(String(sliced.result?.['network']));
      for (const { id } of slices.slice(0, 2))
        for (const [account, place] of await places(id)) expect(place).toBe(whole.get(account));
    });

    it('lie before and after a moment, and are refused where there would be none or too many', async () => {
      const event = from + 7 * DAY;
      const { body } = await app
        .step('weave-slices', { name: 'Vote', weave: recipe, by: 'event', event })
        .expect(200);
      expect(((body as Step).result?.['slices'] as string[]).length).toBe(2);
      const outside = await app
        .step('weave-slices', { name: 'Vote', weave: recipe, by: 'event', event: from - 1 })
        .expect(422);
      expect((outside.body as { detail: string }).detail).toContain('must lie within');
      const years = { ...recipe, until: from + 400 * DAY };
      const many = await app.step('weave-slices', { name: 'Days', weave: years, by: 'day' }).expect(422);
      expect((many.body as { detail: string }).detail).toContain('400 slices; at most 120');
      await app.step('weave-slices', { name: 'F', weave: { what: 'follows' }, by: 'day' }).expect(422);
    });
  });
});
