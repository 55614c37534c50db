import type { Message, Network, SavedMap, Step } from '@pebble/contract';
import {
  asCsv,
  emailsAsMbox,
  makeEmails,
  makeFollowers,
  makePosts,
  makeVideos,
  postsAsJsonLines,
} from '@pebble/standins';
import { startedApplication } from './testing/application';
import { ends, strongest, WovenNetworks } from './testing/wovenNetworks';

const posts = makePosts(3000);
const videos = makeVideos(20, 800);
const mail = makeEmails();
const lists = makeFollowers();

describe('what can be woven from the demo', () => {
  const app = startedApplication();
  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts.posts));
    await app.take('videos.csv', asCsv(videos.videos));
    await app.take('comments.csv', asCsv(videos.comments));
    await app.take('council.mbox', emailsAsMbox(mail.emails));
    for (const { followed, followers } of lists)
      await app.take(`followers of ${followed}.csv`, asCsv(followers));
  }, 120_000);

  const { estimate, make, evidence, table } = new WovenNetworks(app);
  const tags = ({ spans }: Message): string[] =>
    spans.filter(({ what }) => what === 'hashtag').map(({ key }) => `#${key}`.toLowerCase());

  it('hashtags that stand together, without the one that ties everything', async () => {
    const weave = { what: 'together', things: 'hashtag', atLeast: 2, without: ['#LateLampPlan'] };
    const made = await make(weave);
    expect(made.handles.map((tag) => tag.toLowerCase())).not.toContain('#latelampplan');
    const e = strongest(made);
    const { total, messages } = await evidence(made.id, ends(made, e));
    expect(total).toBe(made.edges['weight'][e]);
    const names = [ends(made, e).source, ends(made, e).target].map((v) => made.handles[v].toLowerCase());
    for (const message of messages) expect(tags(message)).toEqual(expect.arrayContaining(names));
    const { total: ofNode } = await evidence(made.id, { node: 0 });
    expect(ofNode).toBe((made.nodes['messages'] as Float64Array)[0]);
    expect(made.step.sentence).toContain('Hashtags tied when they stand in the same message in at least 2');
    const { body: ties } = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${made.id}/message-ties/${messages[0].id}`)
      .expect(200);
    expect((ties as { ties: object[] }).ties).toContainEqual(ends(made, e));
  });

  it.each([
    { what: 'accounts', kinds: ['reply', 'mention'] },
    { what: 'accounts', kinds: ['reply', 'mention'], direction: 'sum' },
    { what: 'together', things: 'hashtag', atLeast: 2 },
    { what: 'two-mode', things: 'hashtag' },
  ])('says of each tie how many of its messages were written on each day: $what', async (weave) => {
    const made = await make(weave);
    const { edge, messages } = await table(made.id, 'daily-tie-counts');
    const e = strongest(made);
    let sum = 0;
    for (let i = 0; i < edge.length; i++) if (Number(edge[i]) === e) sum += Number(messages[i]);
    expect(sum).toBe((await evidence(made.id, ends(made, e))).total);
    const first = Number(made.edges['first'][e]);
    const { total: early } = await evidence(made.id, { ...ends(made, e), until: first + 1 });
    const { total: late } = await evidence(made.id, { ...ends(made, e), from: first + 1 });
    expect(early).toBeGreaterThan(0);
    expect(early + late).toBe(sum);
    expect(new Set(Array.from(edge as Uint32Array)).size).toBe(made.edges['source'].length);
  });

  it('hashtags by thread and by author give more ties than by message', async () => {
    const of = async (unit: string) => (await estimate({ what: 'together', things: 'hashtag', unit })).edges;
    const message = await of('message');
    expect(await of('thread')).toBeGreaterThan(message);
    expect(await of('author')).toBeGreaterThan(message);
  });

  it.each(['mention', 'domain', 'link', 'word'])('%s: each node leads to its messages', async (things) => {
    const made = await make({ what: 'together', things, mostUsed: 60, usedAtLeast: 2, isolates: true });
    expect(made.handles.length).toBeGreaterThan(2);
    const { total, messages } = await evidence(made.id, { node: 1 });
    expect(total).toBe((made.nodes['messages'] as Float64Array)[1]);
    const sought = made.handles[1].toLowerCase();
    for (const { text, addressed } of messages.slice(0, 20))
      expect(`${text} ${JSON.stringify(addressed)}`.toLowerCase().replaceAll('’', "'")).toContain(sought);
  });

  it('videos tied by those who commented on both, without their owners', async () => {
    const made = await make({ what: 'together', things: 'item', unit: 'author' });
    const commenters = (v: number): Set<string> => {
      const { video_id: id, channel_id: owner } = videos.videos.find(
        ({ title }) => title === made.handles[v],
      )! as unknown as { video_id: string; channel_id: string };
      return new Set(
        videos.comments
          .filter((one) => one.video_id === id && one.author !== owner)
          .map(({ author }) => author.toLowerCase()),
      );
    };
    const { source, target } = ends(made, 0);
    const [a, b] = [commenters(source), commenters(target)];
    expect(made.edges['weight'][0]).toBe([...a].filter((author) => b.has(author)).length);
    const { messages } = await evidence(made.id, { source, target });
    for (const { author } of messages)
      expect(a.has(author.handle.toLowerCase()) && b.has(author.handle.toLowerCase())).toBe(true);
    const channels = await make({ what: 'together', things: 'channel', unit: 'author', scale: 'jaccard' });
    expect(channels.handles.length).toBeLessThanOrEqual(14);
  });

  it('accounts and hashtags as two sorts of nodes, and its two projections', async () => {
    const made = await make({ what: 'two-mode', things: 'hashtag', usedAtLeast: 5 });
    const mode = made.nodes['mode'] as readonly string[];
    expect(new Set(mode)).toEqual(new Set(['account', 'hashtag']));
    for (let e = 0; e < 50; e++) {
      const { source, target } = ends(made, e);
      expect([mode[source], mode[target]]).toEqual(['account', 'hashtag']);
    }
    const e = strongest(made);
    const { total } = await evidence(made.id, ends(made, e));
    expect(total).toBe(made.edges['weight'][e]);
    const shared = await make({ what: 'shared', things: 'domain', atLeast: 2 });
    const tie = ends(shared, strongest(shared));
    expect((await evidence(shared.id, tie)).total).toBeGreaterThanOrEqual(2);
  });

  it.each(['count', 'newman', 'jaccard', 'cosine'] as const)(
    'accounts by what they share are shown with ties at first, whatever their weights: %s',
    async (scale) => {
      const made = await make({ what: 'shared', things: 'hashtag', scale, atLeast: 2 });
      const { body } = await app.api.get(`/api/v1/studies/${app.study}/networks/${made.id}/map`).expect(200);
      const { atLeast } = (body as SavedMap).description.show;
      const weight = Array.from(made.edges['weight'] as Float64Array);
      const shown = weight.filter((one) => one >= atLeast).length;
      expect(shown).toBeGreaterThan(made.handles.length / 2);
      expect(shown < weight.length).toBe(atLeast > 0);
    },
  );

  it('accounts of a two-mode network by what they share, with the messages of both', async () => {
    const inner = await make({ what: 'two-mode', things: 'hashtag', without: ['lampsout'], usedAtLeast: 2 });
    const made = await make({ what: 'projection', network: inner.id, sort: 'account', atLeast: 3 });
    const e = strongest(made);
    const tie = ends(made, e);
    const { total, messages } = await evidence(made.id, tie);
    const weight = made.edges['weight'][e] as number;
    expect(total).toBeGreaterThanOrEqual(weight);
    const handles = [tie.source, tie.target].map((node) => made.handles[node]);
    expect(new Set(messages.map(({ author }) => author.handle))).toEqual(new Set(handles));
    const { body } = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${made.id}/message-ties/${messages[0].id}`)
      .expect(200);
    expect((body as { ties: object[] }).ties).toContainEqual(tie);
    // The same is woven from the messages at once.
    const shared = await make({
      what: 'shared',
      things: 'hashtag',
      without: ['lampsout'],
      usedAtLeast: 2,
      atLeast: 3,
    });
    expect(shared.edges['source'].length).toBe(made.edges['source'].length);
    const none = await estimate({ what: 'projection', network: inner.id, sort: 'meeting' });
    expect(none.emptiedBy).toContain('are account, hashtag');
  });

  it('who follows whom, coloured by which of the listed accounts they follow', async () => {
    const made = await make({ what: 'follows' });
    expect(made.edges['source'].length).toBe(lists.reduce((sum, { followers }) => sum + followers.length, 0));
    expect(made.nodes['follows']).toContain(
      lists
        .map(({ followed }) => followed)
        .sort()
        .join(' + '),
    );
    const sorts = await make({ what: 'follows', sorts: 'two' });
    expect(new Set(sorts.nodes['mode'] as string[])).toEqual(new Set(['follower', 'list']));
    expect(sorts.edges['source'].length).toBe(made.edges['source'].length);
    const [first, second] = lists.map(
      ({ followers }) => new Set(followers.map((one) => one.handle.toLowerCase())),
    );
    const shared = [...first].filter((follower) => second.has(follower)).length;
    const listed = await make({ what: 'projection', network: sorts.id, sort: 'list' });
    expect([...(listed.edges['weight'] as Float64Array)]).toContain(shared);
    const both = await estimate({ what: 'follows', listsAtLeast: 2 });
    expect(both.nodes).toBeLessThan(made.handles.length);
    const { body } = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${made.id}/evidence`)
      .query({ node: 0 })
      .expect(409);
    expect((body as { detail: string }).detail).toContain('follower lists');
  });

  it('the ring that posts the same texts within minutes, and hardly anyone else', async () => {
    const made = await make({ what: 'in-step', same: 'text', seconds: 600, atLeast: 2 });
    const ring = new Set(posts.truth.ring.map((handle) => handle.toLowerCase()));
    const found = made.handles.map((handle) => handle.toLowerCase());
    expect(found.filter((handle) => ring.has(handle)).length).toBeGreaterThan(0.7 * ring.size);
    expect(found.filter((handle) => !ring.has(handle)).length).toBeLessThan(0.2 * found.length);
    const e = strongest(made);
    expect((made.edges['chance'] as Float64Array)[e]).toBeLessThan(0.01);
    const { messages } = await evidence(made.id, ends(made, e));
    expect(messages.length).toBeGreaterThanOrEqual(4);
    expect(new Set(messages.map(({ author }) => author.handle)).size).toBe(2);
  });

  it('emails, each divided by its receivers, without those to very many', async () => {
    const weave = {
      what: 'accounts',
      kinds: ['to', 'cc'],
      share: 'divided',
      mostReceivers: 5,
      isolates: false,
    };
    const made = await make(weave);
    const few = mail.emails.filter(({ to, cc }) => new Set([...to, ...cc]).size <= 5);
    const others = ({ from, to, cc }: (typeof few)[number]): number =>
      [...new Set([...to, ...cc])].filter((address) => address !== from.address).length;
    const all = few.reduce((sum, one) => sum + others(one) / new Set([...one.to, ...one.cc]).size, 0);
    const weights = made.edges['weight'] as Float64Array;
    expect(weights.reduce((sum, weight) => sum + weight, 0)).toBeCloseTo(all, 6);
  });

  it('groups as nodes, with what stands behind their nodes', async () => {
    const inner = await make({ what: 'accounts', kinds: ['reply', 'mention'] });
    let network: Network | null = null;
    for (let i = 0; i < 200 && network?.state !== 'measured'; i++) {
      await new Promise((done) => setTimeout(done, 50));
      network = (await app.api.get(`/api/v1/studies/${app.study}/networks/${inner.id}`)).body as Network;
    }
    const weave = { what: 'groups', network: inner.id, column: 'community' };
    const made = await make(weave);
    const weights = made.edges['weight'] as Float64Array;
    const before = inner.edges['weight'] as Float64Array;
    expect(weights.reduce((a, b) => a + b, 0)).toBe(before.reduce((a, b) => a + b, 0));
    const e = Array.from(weights.keys()).find((i) => ends(made, i).source !== ends(made, i).target)!;
    const { total } = await evidence(made.id, ends(made, e));
    expect(total).toBeGreaterThan(0);
    expect(total).toBeLessThanOrEqual(weights[e]);
    expect(made.nodes['group']).toEqual(made.handles.map((name) => name.replace(/ \([\d,]+\)$/, '')));
    const open = await make({ ...weave, open: ['1'] });
    expect(open.handles.length).toBeGreaterThan(made.handles.length);
  });

  it('drops directions, keeps the backbone and the largest component, with the messages of both ways', async () => {
    const recipe = { what: 'accounts', kinds: ['reply', 'mention'], isolates: false };
    const directed = await estimate(recipe);
    const made = await make({ ...recipe, direction: 'mutual' });
    expect(made.edges['source'].length).toBeLessThan(directed.edges);
    const e = strongest(made);
    const { total } = await evidence(made.id, ends(made, e));
    // One message may answer and be answered, but never both ways at once.
    expect(total).toBe((made.edges['weight'] as Float64Array)[e]);
    const thin = await make({ ...recipe, direction: 'sum', backbone: 0.05, largestOnly: true });
    expect(thin.edges['source'].length).toBeLessThan(directed.edges);
    expect(thin.step.sentence).toContain('The disparity filter at 0.05 (Serrano et al. 2009) keeps');
    expect(thin.step.sentence).toContain('Only the largest of');
    const { thinned } = await estimate({ ...recipe, direction: 'sum', backbone: 0.05 });
    expect(thinned!.backbone.ties).toBeLessThan(thinned!.of);
    expect(Math.abs(thinned!.plain.ties - thinned!.backbone.ties)).toBeLessThan(thinned!.of);
    const well = await make({ ...recipe, neighboursAtLeast: 3 });
    expect(well.handles.length).toBeLessThan(directed.nodes);
    expect(well.step.sentence).toContain('only nodes tied to at least 3 others');
    const { nodes, components } = await estimate({ ...recipe, direction: 'sum', largestOnly: true });
    expect([components, nodes]).toEqual([1, directed.largest]);
  });

  it('finds names in texts, which can then be woven', async () => {
    const names = ['Lighting Board', 'Sallowmere Lighting Board', 'Harbour Office'];
    const { body } = await app
      .step('find-names', { by: 'list', names, match: 'words', kind: 'organisation' })
      .expect(200);
    const { result, sentence } = body as Step;
    expect(result).toMatchObject({ names: 3, newNames: 3 });
    expect(sentence).toContain('3 names of a list were looked for in');
    const again = await app.step('find-names', { by: 'list', names, match: 'words', kind: 'organisation' });
    expect((again.body as Step).result).toMatchObject({ names: 3, newNames: 0 });
    const page = await app.get<{ things: { label: string; kind: string }[] }>('tidy/name');
    expect(page.things.map(({ label, kind }) => `${label} ${kind}`).sort()).toEqual(
      names.map((name) => `${name} organisation`).sort(),
    );
    const made = await make({ what: 'two-mode', things: 'name' });
    const { messages } = await evidence(made.id, ends(made, 0));
    for (const { text } of messages)
      expect(text.toLowerCase()).toContain(made.handles[ends(made, 0).target].toLowerCase());
    await app.step('find-names', { by: 'list' }).expect(422);
  });

  it('says which part of the sentence empties the result', async () => {
    const nothing = await estimate({ what: 'together', things: 'hashtag', from: 0, until: 1 });
    expect(nothing.emptiedBy).toBe('No message of this period holds hashtags.');
    const weak = await estimate({ what: 'together', things: 'hashtag', atLeast: 999_999 });
    expect(weak.emptiedBy).toBe('No tie has a strength of 999999. Ask for less.');
    const { body } = await app
      .step('weave', { name: 'x', weave: { what: 'together', things: 'item', unit: 'message' } })
      .expect(422);
    expect((body as { detail: string }).detail).toContain('No two of the items that are kept meet');
  });
});
