import { fromArrow, handleKey, hashtagKey, logLikelihood, textsIn } from '@pebble/core';
import type { FullPortrait, MessagePage, Network, PortraitList, Step, Term } from '@pebble/contract';
import { GROUPS, makePosts, postsAsJsonLines } from '@pebble/standins';
import Papa from 'papaparse';
import { startedApplication } from './testing/application';
import { WovenNetworks, type Made } from './testing/wovenNetworks';

const { posts, truth } = makePosts();
const COLLECTING = hashtagKey('LateLampPlan');

describe('portraits of groups', () => {
  const app = startedApplication();
  const woven = new WovenNetworks(app);
  let made: Made;
  let list: PortraitList;

  const place = (id = made.id): string => `/api/v1/studies/${app.study}/networks/${id}`;
  const network = async (): Promise<Network> => (await app.api.get(place()).expect(200)).body as Network;
  const portraits = async (column = 'community', id = made.id): Promise<PortraitList | null> =>
    (
      await app.api
        .get(`${place(id)}/portraits`)
        .query({ column })
        .expect(200)
    ).body as PortraitList | null;
  const portrait = async (group: string): Promise<FullPortrait> =>
    (await app.api.get(`${place()}/group-portrait`).query({ column: 'community', group }).expect(200))
      .body as FullPortrait;
  const messages = async (query: object): Promise<MessagePage> =>
    (
      await app.api
        .get(`${place()}/group-messages`)
        .query({ column: 'community', limit: 200, ...query })
        .expect(200)
    ).body as MessagePage;
  const portray = async (parameters: object): Promise<Step> =>
    (await app.step('portray-groups', { settings: {}, ...parameters }).expect(200)).body as Step;

  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts));
    made = await woven.make({ what: 'accounts', kinds: ['reply', 'quote', 'mention', 'repost'] });
    for (let i = 0; i < 600 && (await network()).state !== 'measured'; i++)
      await new Promise((done) => setTimeout(done, 50));
    await portray({ network: made.id, column: 'community' });
    list = (await portraits())!;
  }, 120_000);

  /** Who is in which group, straight from the table. */
  const groupOf = async (): Promise<Map<string, string>> => {
    const nodes = await woven.table(made.id, 'nodes');
    const handles = nodes['handle'] as readonly string[];
    const groups = textsIn(nodes['community']);
    return new Map(handles.map((handle, v) => [handleKey(handle), groups[v]]));
  };

  it('count as the file does', async () => {
    const of = await groupOf();
    const { groups } = list;
    expect(list.messages).toBe(posts.length);
    for (const { group, messages: told } of groups.slice(0, 8)) {
      const own = posts.filter((post) => of.get(handleKey(post.author)) === group);
      expect(told).toBe(own.length);
      const { things, authors, kinds, first } = await portrait(group);
      expect(authors).toBe(new Set(own.map((post) => handleKey(post.author))).size);
      expect(kinds.reduce((sum, kind) => sum + kind.messages, 0)).toBe(own.length);
      expect(first).toBe(Math.min(...own.map((post) => Date.parse(post.created_at))));
      const elsewhere = posts.filter((post) => !own.includes(post));
      const has = (post: (typeof posts)[number], { label }: Term): boolean =>
        post.text
          .toLowerCase()
          .match(/#[\p{L}\p{N}_]+/gu)
          ?.includes(label.toLowerCase()) ?? false;
      for (const term of [...things.hashtag.typical, ...things.hashtag.missing].slice(0, 12)) {
        const beside = {
          here: own.filter((post) => has(post, term)).length,
          ofHere: own.length,
          elsewhere: elsewhere.filter((post) => has(post, term)).length,
          ofElsewhere: elsewhere.length,
        };
        expect([term.label, term.messages, term.elsewhere]).toEqual([
          term.label,
          beside.here,
          beside.elsewhere,
        ]);
        expect(term.score).toBeCloseTo(logLikelihood(beside), 6);
      }
    }
  });

  it('name the topics of each planted group first', async () => {
    const of = await groupOf();
    const planted = new Map(Object.entries(truth.group).map(([handle, group]) => [handleKey(handle), group]));
    for (const { name, hashtags } of GROUPS.filter((one) =>
      ['moths', 'stars', 'night', 'pilots', 'traders', 'council', 'ring'].includes(one.name),
    )) {
      const counts = new Map<string, number>();
      for (const [handle, group] of of)
        if (planted.get(handle) === name) counts.set(group, (counts.get(group) ?? 0) + 1);
      const [group] = [...counts].sort((a, b) => b[1] - a[1])[0];
      const { things, suggested, by } = await portrait(group);
      const family = hashtags.map(hashtagKey);
      expect(by).toBe('hashtags');
      const first = things.hashtag.typical.slice(0, 3).map(({ label }) => hashtagKey(label.slice(1)));
      expect(first.filter((tag) => family.includes(tag))).toEqual(first);
      expect(suggested.split(', ').every((tag) => family.includes(hashtagKey(tag.slice(1))))).toBe(true);
    }
  });

  it('give no two groups one title, and none the tag that all have', () => {
    const titles = list.groups.map(({ suggested }) => suggested);
    expect(new Set(titles).size).toBe(titles.length);
    expect(titles.filter((title) => title.toLowerCase().includes(`#${COLLECTING}`))).toEqual([]);
  });

  it('open the messages behind every number', async () => {
    const { group, messages: all } = list.groups[0];
    expect((await messages({ group })).total).toBe(all);
    expect((await messages({ group, elsewhere: 'true' })).total).toBe(posts.length - all);
    const { things, kinds, days, sample, quoted, reposted } = await portrait(group);
    for (const thing of ['hashtag', 'word', 'domain', 'link', 'emoji', 'language'] as const)
      for (const term of [...things[thing].used, ...things[thing].typical].slice(0, 6)) {
        const here = await messages({ group, thing, label: term.label });
        expect([thing, term.label, here.total]).toEqual([thing, term.label, term.messages]);
        const there = await messages({ group, thing, label: term.label, elsewhere: 'true' });
        expect([term.label, there.total]).toEqual([term.label, term.elsewhere]);
      }
    for (const { kind, messages: told } of kinds) expect((await messages({ group, kind })).total).toBe(told);
    // Answers within the group, counted from the file.
    const { answers } = await portrait(group);
    const inGroup = await groupOf();
    const authorOf = new Map(posts.map((post) => [post.id, handleKey(post.author)]));
    const replies = posts.filter(
      (post) =>
        post.kind === 'reply' &&
        authorOf.has(post.in_reply_to) &&
        inGroup.get(handleKey(post.author)) === group,
    );
    const within = replies.filter((post) => inGroup.get(authorOf.get(post.in_reply_to)!) === group);
    expect(answers).toEqual({ all: replies.length, within: within.length });
    expect(answers.within).toBeGreaterThan(0);
    expect((await messages({ group, answers: 'within' })).total).toBe(answers.within);
    const { addressed, addressing, active, waysOut, outside, ties } = await portrait(group);
    for (const { node, value } of addressed)
      expect([node, (await messages({ group, node, way: 'in' })).total]).toEqual([node, value]);
    // A message that addresses several stands behind as many ties.
    for (const [nodes, way] of [
      [addressing, 'out'],
      [waysOut, 'across'],
    ] as const)
      for (const { node, value } of nodes) {
        const { total } = await messages({ group, node, way });
        expect(total).toBeGreaterThan(0.5 * value);
        expect(total).toBeLessThanOrEqual(value);
      }
    for (const { node, value } of active) expect((await messages({ group, node })).total).toBe(value);
    expect((await messages({ group, node: outside[0].node, way: 'with' })).total).toBeGreaterThanOrEqual(
      outside[0].value,
    );
    for (const { group: other, out, into } of ties.slice(0, 3)) {
      const towards = list.groups[other!].group;
      const there = (await messages({ group, towards, way: 'out' })).total;
      expect(there).toBeGreaterThan(0.8 * out);
      expect(there).toBeLessThanOrEqual(out);
      const back = (await messages({ group, towards, way: 'in' })).total;
      expect(back).toBeGreaterThan(0.8 * into);
      expect(back).toBeLessThanOrEqual(into);
    }
    const busiest = [...days].sort((a, b) => b.messages - a.messages)[0];
    expect((await messages({ group, day: busiest.day })).total).toBe(busiest.messages);
    expect(quoted.map(({ id }) => id)).toEqual(expect.arrayContaining(sample));
    const [most] = reposted;
    const text = quoted.find(({ id }) => id === most.message)!;
    expect(
      posts.filter(({ kind, in_reply_to }) => ['repost', 'quote'].includes(kind) && in_reply_to === text.key),
    ).toHaveLength(most.times);
  });

  it('are the same again, and others with another seed', async () => {
    const { group } = list.groups[0];
    const before = await portrait(group);
    await portray({ network: made.id, column: 'community' });
    expect(await portrait(group)).toEqual(before);
    await portray({ network: made.id, column: 'community', settings: { seed: 2 } });
    expect((await portrait(group)).sample).not.toEqual(before.sample);
  });

  it('say that they are out of date once the tidying is another', async () => {
    await portray({ network: made.id, column: 'community' });
    expect((await portraits())!.outOfDate).toBe('');
    const { things, group } = await portrait(list.groups[0].group);
    const [first, second] = things.hashtag.typical;
    const [into, merged] = [first, second].map(({ label }) => hashtagKey(label.slice(1)));
    await app
      .step('tidy', { sort: 'hashtag', decisions: [{ key: merged, verdict: { verdict: 'merge', into } }] })
      .expect(200);
    expect((await portraits())!.outOfDate).toContain('other tidy decisions hold');
    await portray({ network: made.id, column: 'community' });
    expect((await portraits())!.outOfDate).toBe('');
    const [now] = (await portrait(group)).things.hashtag.typical;
    expect(now.label).toBe(first.label);
    expect(now.messages).toBeGreaterThan(first.messages);
    expect((await messages({ group, thing: 'hashtag', label: now.label })).total).toBe(now.messages);
  });

  it('count accounts that were made one as one author', async () => {
    const { group, active, names, authors } = await portrait(list.groups[0].group);
    const [into, merged] = active.map(({ node }) => handleKey(names[node]));
    const decisions = [{ key: merged, verdict: { verdict: 'merge', into } }];
    await app.step('tidy', { sort: 'account', decisions }).expect(200);
    await portray({ network: made.id, column: 'community' });
    expect((await portrait(group)).authors).toBe(authors - 1);
    const { body } = await app.api.get(`/api/v1/studies/${app.study}/tidy`).expect(200);
    const { id } = (body as { decisions: { id: number; key: string }[] }).decisions.find(
      ({ key }) => key === merged,
    )!;
    await app.step('take-back-tidy', { decisions: [id] }).expect(200);
    await portray({ network: made.id, column: 'community' });
    expect((await portrait(group)).authors).toBe(authors);
  });

  it('have titles, memos and quotations of the researcher, which stay when they are drawn again', async () => {
    const { group, sample } = await portrait(list.groups[1].group);
    const notes = {
      title: 'Those of the night',
      memo: 'Speak late.\nSee #nightbus.',
      quotations: [sample[0]],
    };
    await app.step('note-group', { network: made.id, column: 'community', group, notes }).expect(200);
    await portray({ network: made.id, column: 'community' });
    const now = await portrait(group);
    expect(now.notes).toEqual(notes);
    const { titles } = await network();
    expect(titles['community'][group]).toBe('Those of the night');
    expect(titles['community'][list.groups[0].group]).toBe((await portraits())!.groups[0].suggested);
    // What is saved for others says it too.
    const { text } = await app.api.get(`${place()}/export/csv-nodes`).expect(200);
    const { data } = Papa.parse<Record<string, string>>(text.slice(1), { header: true });
    const called = data.filter((row) => row['community'] === group).map((row) => row['community title']);
    expect([called.length, new Set(called)]).toEqual([now.nodes, new Set(['Those of the night'])]);
    await app.step('note-group', { network: made.id, column: 'community', group, notes: {} }).expect(200);
    expect((await network()).titles['community'][group]).toBe(now.suggested);
  });

  it('speak of nodes and ties alone where no messages stand behind a network', async () => {
    const step = await app.take('ties.csv', 'source,target\nann,ben\nben,cat\ncat,ann\ndan,eve\n');
    const id = String(step.result?.['network']);
    for (let i = 0; i < 200; i++) {
      const { state } = (await app.api.get(place(id)).expect(200)).body as Network;
      if (state === 'measured') break;
      await new Promise((done) => setTimeout(done, 50));
    }
    await portray({ network: id, column: 'community' });
    const { groups, messages: none } = (await portraits('community', id))!;
    expect(none).toBe(0);
    expect(groups.map(({ nodes, by }) => [nodes, by])).toEqual([
      [3, 'node'],
      [2, 'node'],
    ]);
    expect(groups[0].sentence).toMatch(/^3 nodes, 60 % of all\. 100 % of the weight/);
  });

  it('of hashtags are drawn from the messages in which these stand', async () => {
    const { id, handles } = await woven.make({ what: 'together', things: 'hashtag' });
    for (let i = 0; i < 200; i++) {
      const { state } = (await app.api.get(place(id)).expect(200)).body as Network;
      if (state === 'measured') break;
      await new Promise((done) => setTimeout(done, 50));
    }
    await portray({ network: id, column: 'community' });
    const { groups } = (await portraits('community', id))!;
    const nodes = fromArrow(
      (
        await app.api
          .get(`${place(id)}/nodes.arrow`)
          .buffer(true)
          .parse((response, done) => {
            const parts: Buffer[] = [];
            response.on('data', (part: Buffer) => parts.push(part));
            response.on('end', () => done(null, Buffer.concat(parts)));
          })
      ).body as Uint8Array,
    );
    const own = handles.filter((_, v) => String(nodes['community'][v]) === groups[0].group);
    const { body } = await app.api
      .get(`${place(id)}/group-portrait`)
      .query({ column: 'community', group: groups[0].group })
      .expect(200);
    // What is used most are the tags of the group themselves.
    const used = (body as FullPortrait).things.hashtag.used.slice(0, 2).map(({ label }) => label);
    expect(own).toEqual(expect.arrayContaining([used[0]]));
  });

  it('refuse what is not there', async () => {
    await app.step('portray-groups', { network: made.id, column: 'nothing', settings: {} }).expect(422);
    await app.api.get(`${place()}/group-portrait`).query({ column: 'community', group: 'x' }).expect(404);
    expect(await portraits('component')).toBeNull();
  });

  it('are gone when a person is forgotten', async () => {
    const { body } = await app.api
      .get(`/api/v1/studies/${app.study}/accounts`)
      .query({ limit: 1 })
      .expect(200);
    const [account] = (body as { accounts: { id: number }[] }).accounts;
    expect(await portraits()).not.toBeNull();
    await app.step('forget-account', { account: account.id }).expect(200);
    expect(await portraits()).toBeNull();
  });
});
