import { handleKey } from '@pebble/core';
import type { MessagePage, Network, Spread, SpreadOffers, Step } from '@pebble/contract';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { startedApplication } from './testing/application';

const DAY = '2031-05-0';

/** Who had a sentence when, and from whom: ann first; ben and cat pass hers on, dan quotes ben's; eve has it by herself, fay tells eve; gus had heard from cat. */
const PLANTED = [
  ['1', 'ann', '1T09:00:00Z', 'the old lamp at the quay was never broken #oldlamp', 'post', ''],
  ['2', 'ben', '1T10:00:00Z', 'the old lamp at the quay was never broken #oldlamp', 'repost', '1'],
  ['3', 'cat', '1T11:00:00Z', 'the old lamp at the quay was never broken #oldlamp', 'repost', '1'],
  ['4', 'dan', '1T12:00:00Z', 'look at this #oldlamp', 'quote', '2'],
  ['5', 'eve', '2T09:00:00Z', 'The old lamp at the quay was NEVER broken! #oldlamp', 'post', ''],
  ['6', 'fay', '2T10:00:00Z', '@eve so the old lamp at the quay was never broken #oldlamp', 'post', ''],
  ['7', 'gus', '1T08:00:00Z', '@cat good morning to you and to all by the river', 'post', ''],
  ['8', 'gus', '3T09:00:00Z', 'the old lamp at the quay was never broken #oldlamp', 'post', ''],
  ['9', 'ann', '3T10:00:00Z', 'again: #oldlamp', 'post', ''],
  ['10', 'hal', '', 'the old lamp at the quay was never broken #oldlamp', 'post', ''],
] as const;

function planted(): string {
  return PLANTED.map(([id, author, time, text, kind, parent]) => {
    return JSON.stringify({ id, author, created_at: time && DAY + time, text, kind, in_reply_to: parent });
  }).join('\n');
}

describe('how something spread', () => {
  const app = startedApplication();
  let network: string;
  const spread = async (body: object): Promise<Spread> =>
    (await app.api.post(`/api/v1/studies/${app.study}/spread`).send(body).expect(200)).body as Spread;
  const read = async (body: object): Promise<MessagePage> =>
    (await app.api.post(`/api/v1/studies/${app.study}/spread-messages`).send(body).expect(200))
      .body as MessagePage;
  const told = ({ steps }: Spread): string[] =>
    steps.map(({ label, from, how }) => (from === null ? label : `${label} ${how} ${steps[from].label}`));
  const idOf = async (author: string): Promise<number> =>
    (await app.get<MessagePage>(`messages?author=${author}`)).messages.sort((a, b) => a.id - b.id)[0].id;

  beforeAll(async () => {
    await app.take('planted.jsonl', planted());
    const weave = { what: 'accounts', kinds: ['mention', 'repost', 'quote'] };
    const made = (await app.step('weave', { name: 'A', weave }).expect(200)).body as Step;
    network = String(made.result?.['network']);
    for (let i = 0; i < 400; i++) {
      if ((await app.get<Network>(`networks/${network}`)).state === 'measured') break;
      await new Promise((next) => setTimeout(next, 50));
    }
  }, 60_000);

  it('is told by reposts, quotes and mentions, by accounts in the order of time', async () => {
    const found = await spread({ of: { what: 'hashtag', label: '#oldlamp' } });
    expect(told(found)).toEqual([
      'ann',
      'ben repost ann',
      'cat repost ann',
      'dan quote ben',
      'eve',
      'fay mention eve',
      'gus',
    ]);
    expect(found).toMatchObject({ messages: 8, accounts: 7, told: 4, likely: 0, undated: 1, alone: 1 });
    expect(found.trees).toEqual([
      // ann – ben, cat; ben – dan: distances 1 1 2, 1 2 3 over six pairs.
      { root: 0, size: 4, depth: 2, breadth: 2, virality: 10 / 6 },
      { root: 4, size: 2, depth: 1, breadth: 1, virality: 1 },
    ]);
    expect(found.sentence).toContain(
      '#oldlamp: 8 messages by 7 accounts, first by ann on 1 May 2031 at 09:00.',
    );
    expect(found.sentence).toContain('1 message without a date are left out');
  });

  it('is made likely by ties where it is asked so, and says which', async () => {
    const found = await spread({ of: { what: 'hashtag', label: '#oldlamp' }, byTies: true });
    // gus had greeted cat before; cat had it then.
    expect(told(found).at(-1)).toBe('gus tie cat');
    expect(found).toMatchObject({ told: 4, likely: 1, alone: 0 });
  });

  it('is that of a message and what passes it on, and of a text wherever it stands', async () => {
    const message = await idOf('ann');
    const passed = await spread({ of: { what: 'message', message } });
    expect(told(passed)).toEqual(['ann', 'ben repost ann', 'cat repost ann', 'dan quote ben']);
    const same = await spread({ of: { what: 'text', message } });
    expect(told(same)).toEqual(['ann', 'ben repost ann', 'cat repost ann', 'eve', 'gus']);
  });

  it('says through whom it came into each group of a network, and opens every number', async () => {
    const of = { what: 'hashtag', label: '#oldlamp' };
    const found = await spread({ of, network, column: 'community' });
    expect(found.steps.every(({ node }, i) => (node === null) === (found.steps[i].group === null))).toBe(
      true,
    );
    const [first] = found.entries;
    expect(found.steps[first.step].label).toBe('ann');
    expect(found.entries.reduce((sum, { accounts }) => sum + accounts, 0) + found.outside).toBe(
      found.accounts,
    );
    for (const { group, accounts } of found.entries) {
      const { messages } = await read({ of, within: { network, column: 'community', group }, limit: 200 });
      const dated = messages.filter(({ time }) => time !== null);
      expect(new Set(dated.map(({ author }) => author.handle)).size).toBe(accounts);
    }
    expect((await read({ of, author: 'ann' })).total).toBe(2);
    const { start, width, messages } = found.curve;
    for (const [i, count] of messages.entries())
      if (count > 0) {
        const page = await read({ of, from: start + i * width, until: start + (i + 1) * width });
        expect(page.total).toBe(count);
      }
  });

  it('is nothing where nobody wrote it', async () => {
    const none = await spread({ of: { what: 'hashtag', label: '#nothing' } });
    expect(none).toMatchObject({ accounts: 0, steps: [], trees: [], sentence: 'No message of #nothing.' });
    expect((await spread({ of: { what: 'message', message: 999 } })).accounts).toBe(0);
    await app.api
      .post(`/api/v1/studies/${app.study}/spread`)
      .send({ of: { what: 'hashtag', label: '#oldlamp' }, network: 'gone' })
      .expect(404);
  });

  it('counts as the file does, and offers what most accounts have', async () => {
    const { posts } = makePosts(3000);
    await app.take('tidepost.jsonl', postsAsJsonLines(posts));
    const { offers } = await app.get<SpreadOffers>('spread-offers?what=hashtag');
    const [most] = offers;
    const tag = most.words.toLowerCase();
    const having = posts.filter(({ text }) =>
      [...text.toLowerCase().matchAll(/#\w+/g)].some(([own]) => own === tag),
    );
    const authors = new Set(having.map(({ author }) => handleKey(author)));
    expect(most.accounts).toBe(authors.size);
    const found = await spread({ of: most.of });
    expect([found.messages, found.accounts]).toEqual([having.length, authors.size]);
    const earliest = having.reduce((a, b) => (Date.parse(a.created_at) <= Date.parse(b.created_at) ? a : b));
    expect(handleKey(found.steps[0].label)).toBe(handleKey(earliest.author));
    for (const what of ['message', 'text', 'link']) {
      const page = await app.get<SpreadOffers>(`spread-offers?what=${what}`);
      expect(page.offers.map(({ accounts }) => accounts)).toEqual(
        page.offers.map(({ accounts }) => accounts).sort((a, b) => b - a),
      );
      const own = await spread({ of: page.offers[0].of });
      expect([what, own.accounts]).toEqual([what, page.offers[0].accounts]);
    }
    const searched = await app.get<SpreadOffers>('spread-offers?what=hashtag&search=oldla');
    expect(searched.offers.map(({ words }) => words)).toEqual(['#oldlamp']);
  });
});
