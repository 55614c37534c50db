import type { MessageOverview, Network, Step } from '@pebble/contract';
import { parse } from 'csv-parse/sync';
import { makeEmails, makePosts, emailsAsMbox, postsAsCsv } from '@pebble/standins';
import { TestApplication, startedApplication } from './testing/application';

type Line = Readonly<Record<string, string | number | undefined>>;

describe('what a study holds', () => {
  const app = startedApplication();
  beforeAll(async () => {
    await app.take('posts.csv', postsAsCsv(makePosts(400).posts));
  }, 60_000);

  const file = async (name: string, query = ''): Promise<string> =>
    (await app.api.get(`/api/v1/studies/${app.study}/export/${name}${query}`).buffer(true).expect(200)).text;
  const lines = async (name: string, query = ''): Promise<Line[]> =>
    await app.api
      .get(`/api/v1/studies/${app.study}/export/${name}${query}`)
      .buffer(true)
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts).toString()));
      })
      .expect(200)
      .then(({ body }: { body: string }) =>
        body
          .trimEnd()
          .split('\n')
          .map((line) => JSON.parse(line) as Line),
      );

  it('gives the same messages when its JSON Lines are read again in another study', async () => {
    const messages = await lines('messages.jsonl');
    const before = await app.get<MessageOverview>('overview');
    expect(messages).toHaveLength(before.messages);
    const times = messages.map(({ time }) => String(time ?? '~'));
    expect(times).toEqual([...times].sort());
    const other = new TestApplication();
    await other.begin();
    try {
      await other.take('again.jsonl', messages.map((line) => JSON.stringify(line)).join('\n'));
      const { authors, kinds, hashtags, from, until, addressKinds, accounts } =
        await other.get<MessageOverview>('overview');
      expect({
        authors: authors.map(({ id: _, ...one }) => one),
        kinds,
        hashtags,
        from,
        until,
        addressKinds,
        accounts,
      }).toEqual({
        authors: before.authors.map(({ id: _, ...one }) => one),
        kinds: before.kinds,
        hashtags: before.hashtags,
        from: before.from,
        until: before.until,
        addressKinds: before.addressKinds,
        accounts: before.accounts,
      });
    } finally {
      await other.end();
    }
  });

  it('is saved as CSV with the same rows, by the filters of the list', async () => {
    const all = await lines('messages.jsonl', '?kind=reply');
    const rows = parse<Record<string, string>>(await file('messages.csv', '?kind=reply'), { columns: true });
    expect(rows.map(({ id }) => id)).toEqual(all.map(({ id }) => id));
    expect(rows.every(({ kind }) => kind === 'reply')).toBe(true);
    const page = await app.get<{ total: number }>('messages?kind=reply&limit=1');
    expect(rows).toHaveLength(page.total);
    const drawn = await lines('messages.jsonl', '?sample=7&seed=3');
    expect(drawn).toHaveLength(7);
  });

  it('has texts as they are in JSON Lines; in CSV none is run as a formula', async () => {
    await app.take('odd.csv', 'id,author,text,mood\nodd1,ann,"=1+1, ""so""",low\nodd2,ann,"two\nlines",\n');
    const [first] = await lines('messages.jsonl', '?author=ann');
    expect(first).toMatchObject({ text: '=1+1, "so"', mood: 'low' });
    const rows = parse<Record<string, string>>(await file('messages.csv', '?author=ann'), { columns: true });
    expect(rows.map(({ text, mood }) => [text, mood])).toEqual([
      [`'=1+1, "so"`, 'low'],
      ['two\nlines', ''],
    ]);
  });

  it('has its accounts with what they did, by the search of their table', async () => {
    const accounts = await lines('accounts.jsonl');
    const { accounts: count } = await app.get<MessageOverview>('overview');
    expect(accounts).toHaveLength(count);
    expect(accounts[0]).toMatchObject({
      messages: Math.max(...accounts.map(({ messages }) => Number(messages))),
    });
    expect((await lines('accounts.jsonl', '?search=ann')).map(({ handle }) => handle)).toContain('ann');
  });

  it('has what was decided, and the logbook with settings and counts', async () => {
    const decisions = [
      { key: 'ann', verdict: { verdict: 'merge', into: 'ben' } },
      { key: 'cem', verdict: { verdict: 'category', name: 'role', value: 'press' } },
    ];
    await app.step('tidy', { sort: 'account', decisions }).expect(200);
    expect(await lines('decisions.jsonl')).toEqual([
      expect.objectContaining({ sort: 'account', key: 'ann', verdict: 'merge', into: 'ben' }),
      expect.objectContaining({ key: 'cem', verdict: 'category', category: 'role', value: 'press' }),
    ]);
    const logbook = parse<Record<string, string>>(await file('logbook.csv'), { columns: true });
    const { steps } = await app.get<{ steps: Step[] }>('logbook');
    expect(logbook.map(({ step, sentence }) => [Number(step), sentence])).toEqual(
      steps.map(({ id, sentence }) => [id, sentence]),
    );
    expect(JSON.parse(logbook.find(({ kind }) => kind === 'tidy')!['settings'])).toMatchObject({ decisions });
  });

  it('has emails with all to whom they were sent', async () => {
    const mail = new TestApplication();
    await mail.begin();
    try {
      const { emails } = makeEmails();
      await mail.take('council.mbox', emailsAsMbox(emails.slice(0, 20)));
      const { text } = await mail.api
        .get(`/api/v1/studies/${mail.study}/export/messages.csv`)
        .buffer(true)
        .expect(200);
      const rows = parse<Record<string, string>>(text, { columns: true });
      expect(rows).toHaveLength(20);
      expect(rows.every(({ to }) => to.includes('@'))).toBe(true);
    } finally {
      await mail.end();
    }
  });

  it('is refused where the file or a filter is none', async () => {
    const refused = (name: string) => app.api.get(`/api/v1/studies/${app.study}/export/${name}`);
    await refused('secrets.csv').expect(404);
    await refused('messages.xml').expect(404);
    await refused('messages.csv?kin=reply').expect(400);
    await app.api.get('/api/v1/studies/none/export/messages.csv').expect(404);
  });

  it('says in the logbook what was taken out', async () => {
    const { body } = await app
      .step('export-data', { what: 'messages', format: 'csv', filter: { kind: 'reply', author: 'ann' } })
      .expect(200);
    expect((body as Step).sentence).toBe(
      'Messages were exported as CSV, those with author ann and kind reply.',
    );
    expect(await app.list<Network>('networks')).toEqual([]);
  });
});
