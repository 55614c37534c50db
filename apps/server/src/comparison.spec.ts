import { handleKey, logLikelihood } from '@pebble/core';
import type { Comparison, MessagePage, MessageSet, Network } from '@pebble/contract';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { startedApplication } from './testing/application';
import { WovenNetworks } from './testing/wovenNetworks';

const { posts } = makePosts(3000);
const [MARCH, APRIL, MAY] = [2, 3, 4].map((month) => Date.UTC(2026, month, 1));
const period = (from: number, until: number): MessageSet => ({ what: 'filter', filter: { from, until } });

describe('two sets of messages beside each other', () => {
  const app = startedApplication();
  const woven = new WovenNetworks(app);
  const compare = async (a: MessageSet, b: MessageSet, leastAuthors = 3): Promise<Comparison> =>
    (await app.api.post(`/api/v1/studies/${app.study}/comparison`).send({ a, b, leastAuthors }).expect(200))
      .body as Comparison;
  const count = async (asked: object): Promise<number> =>
    (
      (await app.api.post(`/api/v1/studies/${app.study}/set-messages`).send(asked).expect(200))
        .body as MessagePage
    ).total;
  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts));
  }, 60_000);

  it('count as the file does: what changed between March and April', async () => {
    const [a, b] = [period(MARCH, APRIL), period(APRIL, MAY)];
    const found = await compare(a, b);
    const within = (from: number, until: number) =>
      posts.filter(({ created_at: at }) => Date.parse(at) >= from && Date.parse(at) < until);
    const [march, april] = [within(MARCH, APRIL), within(APRIL, MAY)];
    const authors = (some: typeof posts) => new Set(some.map(({ author }) => handleKey(author)));
    const both = [...authors(march)].filter((one) => authors(april).has(one));
    expect([found.a.messages, found.b.messages]).toEqual([march.length, april.length]);
    expect([found.a.authors, found.b.authors, found.both.authors]).toEqual([
      authors(march).size,
      authors(april).size,
      both.length,
    ]);
    expect(found.both.messages).toBe(0);
    for (const { label, a: here, b: there } of found.accounts.both.slice(0, 5)) {
      const wrote = (some: typeof posts) =>
        some.filter(({ author }) => handleKey(author) === handleKey(label)).length;
      expect([label, here, there]).toEqual([label, wrote(march), wrote(april)]);
      expect(await count({ set: a, author: label })).toBe(here);
    }
    for (const term of [...found.things.word.a, ...found.things.hashtag.a].slice(0, 6)) {
      const beside = {
        here: term.messages,
        ofHere: march.length,
        elsewhere: term.elsewhere,
        ofElsewhere: april.length,
      };
      expect(term.score).toBeCloseTo(logLikelihood(beside), 6);
    }
    const [shared] = found.things.hashtag.both;
    expect(await count({ set: a, thing: 'hashtag', label: shared.label })).toBe(shared.a);
    expect(await count({ set: b, thing: 'hashtag', label: shared.label })).toBe(shared.b);
    expect(found.days.reduce((sum, day) => sum + day.a, 0)).toBe(march.length);
    expect(found.sentence).toMatch(/^A: [\d,]+ messages by \d+ accounts; B: /);
  });

  it('are the same where a set is compared with itself, and nothing where one is empty', async () => {
    const march = period(MARCH, APRIL);
    const same = await compare(march, march);
    expect(same.sentence).toMatch(/^A and B are the same /);
    expect([same.things.word.a, same.things.word.b]).toEqual([[], []]);
    const empty = await compare(march, period(0, 1));
    expect(empty.sentence).toContain('B has no messages');
    expect(await count({ set: march, without: march })).toBe(0);
  });

  it('are groups, networks, sources and filters, with what is in both', async () => {
    const { id } = await woven.make({ what: 'accounts', kinds: ['reply', 'quote', 'mention', 'repost'] });
    for (let i = 0; i < 400; i++) {
      const { body } = await app.api.get(`/api/v1/studies/${app.study}/networks/${id}`).expect(200);
      if ((body as Network).state === 'measured') break;
      await new Promise((done) => setTimeout(done, 50));
    }
    const group = (value: string): MessageSet => ({
      what: 'group',
      network: id,
      column: 'community',
      group: value,
    });
    const whole: MessageSet = { what: 'network', network: id };
    const within = await compare(group('1'), whole);
    expect(within.both.messages).toBe(within.a.messages);
    expect(within.b.messages).toBe(posts.length);
    expect(within.things.hashtag.a.length).toBeGreaterThan(0);
    expect(await count({ set: whole, without: group('1') })).toBe(posts.length - within.a.messages);
    const tag: MessageSet = { what: 'filter', filter: { hashtag: 'mothcount' } };
    const found = await compare(tag, group('1'));
    expect(found.a.messages).toBe(posts.filter(({ text }) => /#mothcount\b/i.test(text)).length);
  });

  it('refuse networks of nobody', async () => {
    const none: MessageSet = { what: 'network', network: 'nothing' };
    await app.api.post(`/api/v1/studies/${app.study}/comparison`).send({ a: none, b: none }).expect(404);
  });
});
