import type {
  Decision,
  FoundThing,
  Network,
  NewDecision,
  Step,
  Suggestion,
  TidyPage,
} from '@pebble/contract';
import { emailsAsMbox, makeEmails, makePosts, postsAsJsonLines } from '@pebble/standins';
import { startedApplication } from './testing/application';

const posts = makePosts(1500);

describe('tidying', () => {
  const app = startedApplication();
  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts.posts));
  }, 60_000);

  const page = (sort: string, query: object = {}) => app.get<TidyPage>(`tidy/${sort}`, query);
  const decide = async (sort: string, ...decisions: NewDecision[]): Promise<Step> =>
    (await app.step('tidy', { sort, decisions }).expect(200)).body as Step;
  const takeBack = (step: Step) =>
    app.step('take-back-tidy', { decisions: step.result?.['decisions'] }).expect(200);
  const find = async (sort: string, key: string): Promise<FoundThing> =>
    (await page(sort, { limit: 1000 })).things.find((thing) => thing.key === key)!;
  const weave = async (recipe: object): Promise<Step> =>
    (await app.step('weave', { name: 'N', weave: recipe }).expect(200)).body as Step;
  const network = async (step: Step): Promise<Network> =>
    (
      await app.api
        .get(`/api/v1/studies/${app.study}/networks/${String(step.result?.['network'])}`)
        .expect(200)
    ).body as Network;

  it('tables what was found, the most used first, with messages, authors, dates and an example', async () => {
    const { total, things, review } = await page('hashtag');
    expect(total).toBe(review.found);
    expect(things[0].messages).toBeGreaterThanOrEqual(things[1].messages);
    expect(things[0]).toMatchObject({ label: '#LateLampPlan', state: 'open', into: null, merged: [] });
    expect(things[0].first).toBeLessThan(things[0].last!);
    expect(review.sentence).toBe(`0 of ${review.found} hashtags reviewed.`);
    const { things: accounts } = await page('account');
    expect(accounts.some(({ label }) => label === posts.truth.loud)).toBe(true);
  });

  it('searches with alternatives', async () => {
    const { things } = await page('hashtag', { search: 'moth | bat' });
    expect(things.length).toBeGreaterThan(2);
    for (const { label } of things) expect(label.toLowerCase()).toMatch(/moth|bat/);
  });

  it('keeps, drops, merges, renames, and says how far the review is', async () => {
    const [first, second, third] = (await page('hashtag')).things;
    const step = await decide(
      'hashtag',
      { key: first.key, verdict: { verdict: 'drop' } },
      { key: second.key, verdict: { verdict: 'keep' } },
      { key: third.key, verdict: { verdict: 'merge', into: second.key } },
      { key: second.key, verdict: { verdict: 'rename', label: '#Both' } },
    );
    expect(step.sentence).toContain(`The hashtag “${first.key}” was left out`);
    const { review } = await page('hashtag');
    expect(review.sentence).toMatch(
      /^3 of \d+ hashtags reviewed, the most used .* among them; 1 dropped \(33\.3 % of them\); 1 merged into others\.$/,
    );
    expect(await find('hashtag', second.key)).toMatchObject({ label: '#Both', merged: [third.label] });
    expect(await find('hashtag', third.key)).toMatchObject({ state: 'merged', into: { label: '#Both' } });
    expect((await page('hashtag', { show: 'dropped' })).things).toHaveLength(1);

    const woven = await weave({ what: 'together', things: 'hashtag' });
    expect(woven.sentence).toContain('after 3 tidy decisions');
    const found = await network(woven);
    expect(found).toMatchObject({ decisions: 3, stale: false });
    const all = await page('hashtag', { limit: 1000 });
    expect(found.nodes).toBeLessThanOrEqual(all.things.length - 2);

    await takeBack(step);
    expect(await find('hashtag', first.key)).toMatchObject({ state: 'open' });
    expect(await network(woven)).toMatchObject({ stale: true });
    await app.step('take-back-tidy', { decisions: step.result?.['decisions'] }).expect(422);
  });

  it('merges accounts in a network, with the messages of both behind the node', async () => {
    const recipe = { what: 'accounts', kinds: ['reply', 'mention'] };
    const before = await network(await weave(recipe));
    const [a, b] = (await page('account')).things;
    const step = await decide('account', { key: b.key, verdict: { verdict: 'merge', into: a.key } });
    const woven = await weave(recipe);
    const after = await network(woven);
    expect(after.nodes).toBe(before.nodes - 1);
    const nodes = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${after.id}/export/csv-nodes`)
      .buffer(true);
    const at = nodes.text
      .split('\r\n')
      .slice(1)
      .findIndex((line) => line.toLowerCase().includes(a.key));
    const { body } = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${after.id}/evidence`)
      .query({ node: at, limit: 200 })
      .expect(200);
    const authors = (body as { messages: { author: { handle: string } }[] }).messages.map(({ author }) =>
      author.handle.toLowerCase(),
    );
    expect(new Set(authors)).toEqual(new Set([...authors, a.key, b.key]));
    await takeBack(step);
  });

  it('carries the kinds of accounts along as a column of the nodes', async () => {
    const recipe = { what: 'accounts', kinds: ['mention'] };
    const plain = await network(await weave(recipe));
    expect(plain.columns.map(({ name }) => name)).not.toContain('kind');
    const key = posts.truth.loud.toLowerCase();
    const step = await decide('account', { key, verdict: { verdict: 'kind', kind: 'bot-like' } });
    const after = await network(await weave(recipe));
    expect(after.columns).toContainEqual(expect.objectContaining({ name: 'kind', type: 'category' }));
    const { text } = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${after.id}/export/csv-nodes`)
      .buffer(true);
    const [head, ...rows] = text.split('\r\n').map((line) => line.split(','));
    const at = head.indexOf('kind');
    expect(rows.filter((row) => row[at] === 'bot-like').map((row) => row.join(',').toLowerCase())).toEqual([
      expect.stringContaining(key),
    ]);
    await takeBack(step);
  });

  describe('categories', () => {
    const column = async (step: Step, name: string): Promise<string[]> => {
      const { id } = await network(step);
      const { text } = await app.api
        .get(`/api/v1/studies/${app.study}/networks/${id}/export/csv-nodes`)
        .buffer(true);
      const [head, ...rows] = text
        .trim()
        .split('\r\n')
        .map((line) => line.split(','));
      return rows.map((row) => row[head.indexOf(name)]);
    };
    const recipe = { what: 'together', things: 'hashtag' };

    it('are given by hand, carried along with networks, and taken back', async () => {
      const [first, second] = (await page('hashtag')).things;
      const verdict = { verdict: 'category', name: 'theme', value: 'plan' } as const;
      const step = await decide(
        'hashtag',
        { key: first.key, verdict },
        { key: second.key, verdict: { ...verdict, value: 'animals' } },
      );
      expect(step.sentence).toContain(`The hashtag “${first.key}” was given the theme “plan”`);
      expect((await page('hashtag', { search: 'animals' })).things.map(({ key }) => key)).toEqual([
        second.key,
      ]);
      expect(await find('hashtag', first.key)).toMatchObject({
        categories: { theme: 'plan' },
        state: 'open',
      });
      const woven = await weave(recipe);
      expect((await column(woven, 'theme')).filter((value) => value !== '').sort()).toEqual([
        'animals',
        'plan',
      ]);
      // A category changes no tie: the network is not out of date.
      await takeBack(step);
      expect(await network(woven)).toMatchObject({ stale: false, decisions: 0 });
      expect(await find('hashtag', first.key)).toMatchObject({ categories: {} });
    });

    it('are given by a rule, which says how many it found', async () => {
      const rule = {
        sort: 'hashtag',
        field: 'label',
        contains: 'moth | bat',
        category: 'theme',
        value: 'animals',
      };
      const step = (await app.step('categorise-by-rule', rule).expect(200)).body as Step;
      const { things } = await page('hashtag', { search: 'moth | bat', limit: 1000 });
      expect(step.result?.['decisions']).toHaveLength(things.length);
      expect(step.sentence).toBe(
        `${things.length} hashtags (those of which what they are called contains “moth | bat”) were given the theme “animals”.`,
      );
      await takeBack(step);
      const { body } = await app.step('categorise-by-rule', { ...rule, contains: 'xylophone' }).expect(422);
      expect((body as { detail: string }).detail).toContain('no hashtag of which');
      await app.step('categorise-by-rule', { ...rule, category: 'betweenness' }).expect(422);
      await app.step('categorise-by-rule', { ...rule, field: 'description' }).expect(422);
    });

    it('are taken from a table, and rows that fit nothing are listed', async () => {
      const [first, second] = (await page('account')).things;
      const table = `account,side,role\n@${first.label},for,pilot\n${second.label},against,\nnobody.here,for,pilot\n`;
      const { id, preview } = await app.look('sides.csv', table);
      const roles = ['node', 'attribute', 'attribute'];
      const columns = preview.reading.columns.map((one, i) => ({ ...one, role: roles[i] }));
      const reading = { ...preview.reading, material: 'nodes', columns };
      const asked = { sort: 'account', upload: id, file: 'sides.csv', reading };
      const step = (await app.step('categorise-by-table', asked).expect(200)).body as Step;
      expect(step.result).toMatchObject({ things: 2, categories: ['side', 'role'], skipped: 1 });
      expect(step.sentence).toContain('1 row of the table fit none of the accounts and is listed');
      expect(await find('account', second.key)).toMatchObject({ categories: { side: 'against' } });
      const woven = await weave({ what: 'accounts', kinds: ['mention'] });
      expect((await column(woven, 'side')).filter((value) => value !== '').sort()).toEqual([
        'against',
        'for',
      ]);
      await takeBack(step);
    });
  });

  it('finds names by patterns, and refuses one that is wrong or could go on for ever', async () => {
    const find = (names: string[]) =>
      app.step('find-names', { by: 'list', names, match: 'patterns', kind: 'organisation' });
    const step = (await find(['\\b(?:lighting|harbour) \\w+']).expect(200)).body as Step;
    expect(step.sentence).toContain('1 pattern of a list was looked for');
    expect((await page('name')).things.length).toBeGreaterThan(1);
    for (const bad of ['(open', '(a)\\1', 'x*']) {
      const { body } = await find([bad]).expect(422);
      expect((body as { detail: string }).detail).toContain('cannot be used');
    }
  });

  it('leaves an account out with all its messages', async () => {
    const recipe = { what: 'accounts', kinds: ['mention'], isolates: false };
    const before = await network(await weave(recipe));
    const step = await decide('account', {
      key: posts.truth.loud.toLowerCase(),
      verdict: { verdict: 'drop' },
    });
    const after = await network(await weave(recipe));
    expect(after.edges).toBeLessThan(before.edges);
    await takeBack(step);
  });

  it('refuses a circle, and changes nothing', async () => {
    const merge = (key: string, into: string): NewDecision => ({ key, verdict: { verdict: 'merge', into } });
    const { body } = await app
      .step('tidy', { sort: 'word', decisions: [merge('lamps', 'lights'), merge('lights', 'lamps')] })
      .expect(422);
    expect((body as { detail: string }).detail).toContain('circle');
    expect((await app.list<Decision>('tidy', 'decisions')).length).toBe(0);
  });

  it('proposes pairs with their reason, and does not ask twice', async () => {
    const mail = makeEmails();
    await app.take('council.mbox', emailsAsMbox(mail.emails));
    const suggestions = await app.get<Suggestion[]>('tidy/account/suggestions');
    const people = suggestions.filter(({ reason }) => reason === 'same personal name');
    expect(people.length).toBeGreaterThanOrEqual(mail.truth.addresses - 1 - mail.truth.people);
    const [{ a, b }] = people;
    expect(a.messages).toBeGreaterThanOrEqual(b.messages);
    await decide('account', { key: b.key, verdict: { verdict: 'merge', into: a.key } });
    const again = await app.get<Suggestion[]>('tidy/account/suggestions');
    expect(again.some((one) => one.a.key === b.key || one.b.key === b.key)).toBe(false);
  });
});
