import { createHmac } from 'node:crypto';
import SqliteDatabase from 'better-sqlite3';
import type { Leaks, NodeNames, People, Step } from '@pebble/contract';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { studyFile } from './storage/open';
import { startedApplication } from './testing/application';
import { WovenNetworks, type Made } from './testing/wovenNetworks';

const { posts } = makePosts(900);

describe('people in what is published', () => {
  const app = startedApplication();
  const woven = new WovenNetworks(app);
  let made: Made;
  let handles: string[];
  const file = async (format: string, network = made.id): Promise<string> => {
    const { body, text } = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${network}/export/${format}`)
      .buffer()
      .expect(200);
    return text ?? (body as Buffer).toString();
  };
  const rows = (csv: string): string[][] =>
    csv
      .trimEnd()
      .split(/\r?\n/)
      .map((line) => line.split(','));
  const column = (csv: string, name: string): string[] => {
    const [head, ...body] = rows(csv);
    return body.map((row) => row[head.indexOf(name)]);
  };
  const name = async (naming: object): Promise<Step> =>
    (await app.step('name-people', naming).expect(200)).body as Step;
  const names = (network = made.id): Promise<NodeNames> => app.get<NodeNames>(`networks/${network}/names`);

  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts));
    made = await woven.make({ what: 'accounts', kinds: ['reply', 'mention'] });
    handles = column(await file('csv-nodes'), 'handle');
    await woven.arrange(made.id);
  }, 60_000);
  afterEach(() => name({ form: 'as they are' }));

  it('are called as they are as long as nobody decides otherwise', async () => {
    const { naming, known } = await app.get<People>('people');
    expect([naming.form, known]).toEqual(['as they are', 0]);
    expect(await names()).toMatchObject({ names: [], missing: 0, kept: 0, leftOut: [] });
  });

  it.each([
    ['words', /^[a-z]+ [a-z]+( \d+)?$/],
    ['numbers', /^account \d+$/],
  ])('have pseudonyms of %s, everywhere the same, nobody the one of another', async (form, like) => {
    const { sentence } = await name({ form });
    expect(sentence).toMatch(/by pseudonyms .* made with a secret of the study\.$/);
    const called = (await names()).names as string[];
    expect(called.every((one) => like.test(one))).toBe(true);
    expect(new Set(called).size).toBe(handles.length);
    expect(column(await file('csv-nodes'), 'handle')).toEqual(called);
    expect(new Set(column(await file('csv-nodes'), 'name'))).toEqual(new Set(['']));
    const other = await woven.make({ what: 'accounts', kinds: ['repost'] });
    const otherNames = (await names(other.id)).names;
    const before = new Map(handles.map((handle, v) => [handle, called[v]]));
    await name({ form: 'as they are' });
    column(await file('csv-nodes', other.id), 'handle').forEach((handle, v) => {
      if (before.has(handle)) expect(otherNames[v]).toBe(before.get(handle));
    });
    await name({ form });
    expect((await names()).names).toEqual(called);
  });

  it('stand in no file of the network, and in no figure, by anything that they are called', async () => {
    await name({ form: 'numbers' });
    const gone = handles.filter((handle) => handle.includes('_'));
    expect(gone.length).toBeGreaterThan(20);
    for (const format of ['graphml', 'csv-nodes', 'csv-ties', 'gml', 'json-graph', 'node-link', 'dot']) {
      const text = await file(format);
      expect(text.length).toBeGreaterThan(1000);
      expect(gone.filter((handle) => text.includes(handle))).toEqual([]);
    }
    const { body } = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${made.id}/figure.svg`)
      .buffer()
      .expect(200);
    const svg = (body as Buffer).toString();
    expect(gone.filter((handle) => svg.includes(handle))).toEqual([]);
    expect(svg).toContain('account ');
    expect(await app.get<Leaks>(`networks/${made.id}/leaks`)).toEqual({ leaks: [], total: 0 });
  });

  it('keep their names where they are chosen, or of a chosen kind', async () => {
    const [first, second, third] = handles;
    const decisions = [{ key: second, verdict: { verdict: 'kind', kind: 'press' } }];
    await app.step('tidy', { sort: 'account', decisions }).expect(200);
    const { sentence } = await name({
      form: 'words',
      keep: [`@${first}`, 'nobody_here'],
      keepKinds: ['press'],
    });
    expect(sentence).toContain('; 2 accounts of the kind press or chosen one by one keep their names');
    expect(sentence).toContain('Nobody is called nobody_here.');
    const { names: called, kept } = await names();
    expect([called[0], called[1], kept]).toEqual([null, null, 2]);
    expect(called[2]).not.toBe(third);
    expect(column(await file('csv-nodes'), 'handle').slice(0, 2)).toEqual([first, second]);
    expect((await app.get<Leaks>(`networks/${made.id}/leaks`)).total).toBe(0);
  });

  it('are called by a category and a number', async () => {
    const [first, second] = handles;
    const value = (key: string, role: string) => ({
      key,
      verdict: { verdict: 'category', name: 'part', value: role },
    });
    await app
      .step('tidy', { sort: 'account', decisions: [value(first, 'resident'), value(second, 'shop')] })
      .expect(200);
    await app.step('name-people', { form: 'category' }).expect(422);
    await name({ form: 'category', category: 'part' });
    const called = (await names()).names as string[];
    expect(called[0]).toMatch(/^resident \d+$/);
    expect(called[1]).toMatch(/^shop \d+$/);
    expect(called[2]).toMatch(/^account \d+$/);
    expect((await app.get<People>('people')).categories).toContain('part');
  });

  it('are told where few of them share what goes out, and what is left out then', async () => {
    await app
      .step('mark-nodes', { network: made.id, nodes: [0, 1, 2], column: 'part', value: 'speaker' })
      .expect(200);
    await name({ form: 'numbers' });
    const { telling, leftOut, smallCells } = await names();
    expect([telling.includes('part'), leftOut.includes('part')]).toEqual([true, false]);
    expect(smallCells).toMatchObject({ combinations: 1, people: 3, least: 5 });
    expect((await file('csv-nodes')).split('\n')[0]).toContain('part');
    await name({ form: 'numbers', without: ['part'] });
    expect((await names()).smallCells.combinations).toBe(0);
    expect((await file('csv-nodes')).split('\n')[0]).not.toContain('part');
  });

  it('are not touched where nodes are no people: of two sorts of nodes, accounts alone', async () => {
    await name({ form: 'numbers' });
    const tags = await woven.make({ what: 'together', things: 'hashtag', atLeast: 2 });
    expect(new Set((await names(tags.id)).names)).toEqual(new Set([null]));
    const both = await woven.make({ what: 'two-mode', things: 'hashtag', atLeast: 1 });
    const called = (await names(both.id)).names;
    const modes = column(await file('csv-nodes', both.id), 'mode');
    expect(modes.length).toBe(called.length);
    called.forEach((one, v) => expect(one === null).toBe(modes[v] !== 'account'));
  });

  it('are found where they stand all the same, each place once', async () => {
    await name({ form: 'words' });
    const ask = async (...texts: string[]): Promise<Leaks> =>
      (
        await app.api
          .post(`/api/v1/studies/${app.study}/leaks`)
          .send({ texts: texts.map((text, i) => ({ place: `text ${i}`, text })) })
          .expect(200)
      ).body as Leaks;
    const handle = handles.find((one) => one.includes('_'))!;
    const { leaks, total } = await ask('nothing here', `by ${handle} and ${handle}`, handle.toUpperCase());
    expect([total, leaks.map(({ place }) => place)]).toEqual([2, ['text 1', 'text 2']]);
    await app
      .step('mark-nodes', { network: made.id, nodes: [0, 1], column: 'who', value: `friend of ${handle}` })
      .expect(200);
    const found = await app.get<Leaks>(`networks/${made.id}/leaks`);
    expect(found.leaks.map(({ place }) => place)).toContain('nodes, column “who”');
    await name({ form: 'as they are' });
    expect((await ask(handle)).total).toBe(0);
  });

  it('that come later are given theirs when that is asked for, and no table goes out before', async () => {
    await name({ form: 'words' });
    const before = (await names()).names;
    await app.take(
      'more.csv',
      'id,author,text\nq1,late_comer,@late_friend hello\nq2,late_friend,@late_comer yes\n',
    );
    const later = await woven.make({ what: 'accounts', kinds: ['mention'] });
    const { missing, names: called } = await names(later.id);
    expect(missing).toBe(2);
    expect(called.filter((one) => one === 'not named yet')).toHaveLength(2);
    const refused = await app.step('export-network', { network: later.id, format: 'csv-nodes' }).expect(422);
    expect((refused.body as { detail: string }).detail).toMatch(/^2 accounts came after/);
    await app.api.get(`/api/v1/studies/${app.study}/networks/${later.id}/export/csv-nodes`).expect(409);
    await name({ form: 'words' });
    expect((await names(later.id)).missing).toBe(0);
    expect((await names()).names).toEqual(before);
  });

  it('have a key that can be saved apart, made by HMAC with a secret, and is gone once it is deleted', async () => {
    await name({ form: 'numbers' });
    const { text: key } = await app.api
      .get(`/api/v1/studies/${app.study}/export/pseudonyms.csv`)
      .buffer()
      .expect(200);
    const numbers = new Map(
      rows(key)
        .slice(1)
        .map(([handle, , , number]) => [handle, Number(number)]),
    );
    const called = (await names()).names;
    handles.forEach((handle, v) => expect(called[v]).toBe(`account ${numbers.get(handle)}`));

    const file = new SqliteDatabase(studyFile(app.studyFolder), { readonly: true });
    const secret = Buffer.from(file.prepare('select secret from naming').pluck().get() as string, 'base64');
    const persons = file.prepare('select person, number from pseudonym order by number').raw().all() as [
      string,
      number,
    ][];
    file.close();
    const digest = (person: string): string =>
      createHmac('sha256', secret).update(`0 ${person}`).digest('hex');
    const first = persons.slice(0, 50).map(([person]) => person);
    expect([...first].sort((a, b) => (digest(a) < digest(b) ? -1 : 1))).toEqual(first);

    await app.step('forget-pseudonyms', {}).expect(200);
    expect(await app.get<People>('people')).toMatchObject({ known: 0, naming: { form: 'as they are' } });
    await name({ form: 'numbers' });
    expect((await names()).names).not.toEqual(called);
  });

  it('have one each in a network from a file too, where handles differ in capitals alone', async () => {
    const step = await app.take('ties.csv', 'source,target\nAnn,ann\nAnn,Quay_One\nquay_one,ann\n');
    const network = String(step.result?.['network']);
    await name({ form: 'words' });
    const { names: called, missing } = await names(network);
    expect([called.length, new Set(called).size, missing]).toEqual([4, 4, 0]);
    const { text } = await app.api
      .get(`/api/v1/studies/${app.study}/export/pseudonyms.csv`)
      .buffer()
      .expect(200);
    expect(column(text, 'handle')).toEqual(expect.arrayContaining(['ann', 'quay_one']));
    expect(text).not.toMatch(/^'?=/m);
  });

  it('never have a pseudonym that somebody is called who keeps the name', async () => {
    await name({ form: 'words' });
    const [first] = (await names()).names as string[];
    await app.take('namesake.csv', `id,author,text\nn1,${first.replace(' ', '_')},hello\nn2,fresh_one,yes\n`);
    await app.step('forget-pseudonyms', {}).expect(200);
    await name({ form: 'words', keep: [first.replace(' ', '_')] });
    const all = (await app.api.get(`/api/v1/studies/${app.study}/export/pseudonyms.csv`).buffer().expect(200))
      .text;
    const namesakes = column(all, 'words').filter((words) => words.startsWith(first));
    expect(namesakes).toEqual([]);
  });

  it('are forgotten with their pseudonym', async () => {
    await name({ form: 'words' });
    const { accounts } = await app.get<{ accounts: { id: number; handle: string }[] }>('accounts', {
      limit: 500,
    });
    const { id, handle } = accounts.find((one) => one.handle === handles[3])!;
    const persons = (): string[] => {
      const file = new SqliteDatabase(studyFile(app.studyFolder), { readonly: true });
      const all = file.prepare('select person from pseudonym').pluck().all() as string[];
      file.close();
      return all;
    };
    expect(persons()).toContain(handle);
    const before = persons().length;
    await app.step('forget-account', { account: id }).expect(200);
    expect(persons()).not.toContain(handle);
    expect(persons()).toHaveLength(before - 1);
  });
});
