import {
  AGREED,
  type Agreement,
  type Codebook,
  type MessagePage,
  type Network,
  type Queue,
  type Step,
} from '@pebble/contract';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import Papa from 'papaparse';
import { startedApplication } from './testing/application';

const { posts } = makePosts(900);

describe('codes', () => {
  const app = startedApplication();
  let codes: Codebook['codes'];
  const book = () => app.get<Codebook>('codebook');
  const step = async (kind: Parameters<typeof app.step>[0], parameters: object): Promise<Step> =>
    (await app.step(kind, parameters).expect(200)).body as Step;
  const queue = (sample: number, coder: string, limit = 100) =>
    app.get<Queue>(`samples/${sample}/queue?coder=${coder}&limit=${limit}`);
  const agreement = async (sample: number, coders = ['ann', 'ben']): Promise<Agreement> =>
    (await app.api.post(`/api/v1/studies/${app.study}/agreement`).send({ sample, coders }).expect(200))
      .body as Agreement;
  const withCode = async (name: string): Promise<number> =>
    (await app.get<MessagePage>(`messages?code=${name}`)).total;
  const draw = async (parameters: object): Promise<number> =>
    Number(
      (await step('draw-sample', { name: 'S', from: { what: 'filter', filter: {} }, ...parameters }))
        .result?.['sample'],
    );

  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts));
    await step('edit-codebook', {
      codes: [
        { name: 'ask', definition: 'Somebody is asked for something.', colour: '#0072B2', set: 'acts' },
        { name: 'blame', colour: '#D55E00', set: 'acts' },
        { name: 'joke', colour: '#009E73' },
      ],
    });
    ({ codes } = await book());
  }, 60_000);

  it('stand in a book, in their order, and can be changed without losing what was coded', async () => {
    expect(codes.map(({ name, set, messages }) => [name, set, messages])).toEqual([
      ['ask', 'acts', 0],
      ['blame', 'acts', 0],
      ['joke', '', 0],
    ]);
    const turned = [codes[1], { ...codes[0], name: 'request' }, codes[2]];
    await step('edit-codebook', { codes: turned.map(({ messages: _, ...code }) => code) });
    expect((await book()).codes.map(({ id, name }) => [id, name])).toEqual([
      [codes[1].id, 'blame'],
      [codes[0].id, 'request'],
      [codes[2].id, 'joke'],
    ]);
    await step('edit-codebook', { codes: codes.map(({ messages: _, ...code }) => code) });
    const twice = ['ask', 'ASK'].map((name) => ({ name, colour: '#0072B2' }));
    await app.step('edit-codebook', { codes: twice }).expect(422);
    await app.step('edit-codebook', { codes: [{ id: 999, name: 'x', colour: '#0072B2' }] }).expect(422);
  });

  it('are given in the order of a sample, which a seed draws again alike', async () => {
    const sample = await draw({ most: 30, seed: 5 });
    const again = await draw({ most: 30, seed: 5 });
    const ids = ({ entries }: Queue): number[] => entries.map(({ message }) => message.id);
    const [one, other] = [await queue(sample, 'ann'), await queue(again, 'ann')];
    expect(ids(one)).toEqual(ids(other));
    expect(ids(one)).not.toEqual(ids(await queue(await draw({ most: 30, seed: 6 }), 'ann')));
    expect(one).toMatchObject({ total: 30, coded: 0, next: 0 });
    const [first, second] = ids(one);
    await step('code-message', { message: first, coder: 'ann', codes: [codes[0].id, codes[2].id] });
    // None of the codes is a decision too.
    await step('code-message', { message: second, coder: 'ann', codes: [] });
    const then = await queue(sample, 'ann');
    expect(then).toMatchObject({ coded: 2, next: 2 });
    expect(then.entries.slice(0, 3).map((entry) => entry.codes)).toEqual([
      [codes[0].id, codes[2].id],
      [],
      null,
    ]);
    expect((await queue(sample, 'ben')).coded).toBe(0);
    await step('code-message', { message: second, coder: 'ann', codes: null });
    expect((await queue(sample, 'ann')).next).toBe(1);
    await step('code-message', { message: first, coder: 'ann', codes: null });
    await app.step('code-message', { message: first, coder: 'ann', codes: [999] }).expect(422);
  });

  it('are compared between coders: kappa and alpha as worked out, disagreements settled', async () => {
    const sample = await draw({ most: 50, seed: 9 });
    const { entries } = await queue(sample, 'ann');
    // A fourfold table of 20, 5, 10, 15: kappa 0.4.
    for (const [i, { message }] of entries.entries()) {
      const [a, b] = i < 20 ? [1, 1] : i < 25 ? [1, 0] : i < 35 ? [0, 1] : [0, 0];
      for (const [coder, has] of [
        ['ann', a],
        ['ben', b],
      ] as const)
        await step('code-message', { message: message.id, coder, codes: has ? [codes[1].id] : [] });
    }
    const found = await agreement(sample);
    const blame = found.codes.find(({ name }) => name === 'blame')!;
    expect(found).toMatchObject({ messages: 50, alike: 35 });
    expect(blame).toMatchObject({ given: [25, 30], all: 20 });
    expect(blame.kappa).toBeCloseTo(0.4, 10);
    // Alpha by its definition: 100 values, 55 of them yes; 15 units differ.
    expect(blame.alpha).toBeCloseTo(1 - (99 * 30) / (2 * 55 * 45), 10);
    expect(blame.interval!.low).toBeLessThan(blame.alpha!);
    expect(found.codes.find(({ name }) => name === 'joke')).toMatchObject({ kappa: null, alpha: null });
    expect(found.disagreements).toMatchObject({ total: 15, settled: 0 });

    // Any coder's code holds until something is agreed.
    expect(await withCode('blame')).toBe(35);
    for (const { message } of found.disagreements.entries)
      await step('code-message', { message: message.id, coder: AGREED, codes: [] });
    expect((await agreement(sample)).disagreements.settled).toBe(15);
    expect(await withCode('blame')).toBe(20);

    const kept = await step('measure-agreement', { sample, coders: ['ann', 'ben'] });
    expect(kept.sentence).toMatch(
      /^50 messages were coded by ann and ben, each for itself; 35 got the same codes\. .*“blame” alpha 0\.400 \(0\.\d+ to 0\.\d+\), kappa 0\.400/,
    );
    const nobody = await app.step('measure-agreement', { sample, coders: ['ann', 'zoe'] }).expect(422);
    expect((nobody.body as { detail: string }).detail).toContain('No message of the sample');
    expect((await book()).coders).toEqual([
      { name: 'ann', messages: 50 },
      { name: 'ben', messages: 50 },
      { name: AGREED, messages: 15 },
    ]);
  });

  it('choose what is woven, and colour nodes by their share', async () => {
    await step('save-filter', { name: 'Blame', filter: { code: 'blame' } });
    const weave = {
      what: 'accounts',
      kinds: ['reply', 'quote', 'mention', 'repost'],
      only: { name: 'Blame', filter: { code: 'blame' } },
    };
    const woven = await step('weave', { name: 'Blame', weave });
    const network = await app.get<Network>(`networks/${String(woven.result?.['network'])}`);
    expect(network.messages).toBeGreaterThan(0);
    expect(network.messages).toBeLessThanOrEqual(20);
    const whole = await step('weave', { name: 'All', weave: { ...weave, only: null } });
    const id = String(whole.result?.['network']);
    const shared = await step('share-of-code', { network: id, code: codes[1].id });
    expect(shared.sentence).toContain('with the code “blame”');
    const { columns } = await app.get<Network>(`networks/${id}`);
    expect(columns.map(({ name }) => name)).toContain('share of “blame”');
    // What the accounts wrote, also where it addresses nobody.
    const { messages } = shared.result as { messages: number };
    expect(messages).toBeGreaterThanOrEqual(network.messages);
    expect(messages).toBeLessThanOrEqual(20);
    // Ties have the share of what they open.
    const coded = new Set(
      (await app.get<MessagePage>('messages?code=blame&limit=200')).messages.map((one) => one.id),
    );
    const table = async (name: string): Promise<string[][]> =>
      Papa.parse<string[]>(
        (await app.api.get(`/api/v1/studies/${app.study}/networks/${id}/export/${name}`).expect(200)).text,
        { skipEmptyLines: true },
      ).data;
    const [[, ...nodes], [heads, ...ties]] = [await table('csv-nodes'), await table('csv-ties')];
    const placeOf = new Map(nodes.map(([node], v) => [node, v]));
    const share = heads.indexOf('share of “blame”');
    const [having, others] = [
      ties.filter((tie) => tie[share] !== '0'),
      ties.filter((tie) => tie[share] === '0'),
    ];
    expect(having.length).toBe((shared.result as { ties: number }).ties);
    expect(having.length).toBeGreaterThan(0);
    for (const tie of [...having, ...others.slice(0, 20)]) {
      const [source, target] = tie.map((end) => placeOf.get(end));
      const { total, messages: read } = await app.get<MessagePage>(
        `networks/${id}/evidence?source=${source}&target=${target}&limit=200`,
      );
      expect(Number(tie[share])).toBeCloseTo(read.filter((one) => coded.has(one.id)).length / total, 12);
    }
  }, 60_000);

  it('are drawn so many of each group, mixed', async () => {
    const woven = await step('weave', {
      name: 'G',
      weave: { what: 'accounts', kinds: ['mention', 'reply', 'repost'] },
    });
    const network = String(woven.result?.['network']);
    for (let i = 0; i < 400; i++) {
      if ((await app.get<Network>(`networks/${network}`)).state === 'measured') break;
      await new Promise((next) => setTimeout(next, 50));
    }
    const drawn = await step('draw-sample', {
      name: 'Each',
      from: { what: 'groups', network, column: 'community' },
      most: 4,
    });
    const { messages, groups } = drawn.result as { messages: number; groups: number };
    expect(messages).toBeGreaterThan(groups);
    expect(messages).toBeLessThanOrEqual(4 * groups);
    await app
      .step('draw-sample', { name: 'x', from: { what: 'filter', filter: { text: 'qqqzzz' } }, most: 4 })
      .expect(422);
  });

  it('are saved as files, and taken in again, also in another study', async () => {
    const text = async (what: string, format: string): Promise<string> =>
      (await app.api.get(`/api/v1/studies/${app.study}/export/${what}.${format}`).expect(200)).text;
    const files = {
      book: await text('codebook', 'csv'),
      codings: await text('codings', 'csv'),
      lines: await text('codings', 'jsonl'),
    };
    expect(files.book.split('\r\n')[0]).toContain('name,set,definition,examples,colour');
    const other = (
      (await app.api.post('/api/v1/studies').send({ name: 'Second' }).expect(201)).body as { id: string }
    ).id;
    const at = `/api/v1/studies/${other}`;
    const take = async (
      file: string,
      content: string,
      expected = 200,
    ): Promise<Step & { detail?: string }> => {
      const sent = await app.api
        .post(`${at}/bytes`)
        .set('content-type', 'application/octet-stream')
        .send(Buffer.from(content))
        .expect(201);
      const parameters = { upload: (sent.body as { id: string }).id, file };
      return (await app.api.post(`${at}/steps`).send({ kind: 'import-codes', parameters }).expect(expected))
        .body as Step & { detail?: string };
    };
    expect((await take('book.csv', files.book)).sentence).toBe(
      'From “book.csv” 3 codes were added and 0 changed.',
    );
    expect((await take('book.csv', files.book)).sentence).toBe(
      'From “book.csv” 0 codes were added and 3 changed.',
    );
    const taken = (await app.api.get(`${at}/codebook`).expect(200)).body as Codebook;
    expect(taken.codes.map(({ id: _, messages: __, ...code }) => code)).toEqual(
      codes.map(({ id: _, messages: __, ...code }) => code),
    );
    // Nothing of it is in the second study, which says so.
    expect((await take('codings.csv', files.codings)).sentence).toMatch(
      /0 messages was taken in; \d+ rows of messages that are not in the study were left out/,
    );
    const bad = await take('codings.csv', 'message,coder,code\nx,,blame\n', 422);
    expect(bad.detail).toContain('row 2, coder');
    expect((await take('codes.csv', 'name,colour\nred,nothing\n', 422)).detail).toContain('row 2, colour');
    expect((await take('codes.jsonl', '{"name":"a"}\n{oh', 422)).detail).toContain('line 2 is no JSON');
    // In their own study codings come back as they were.
    const before = await withCode('blame');
    await app.api.delete(at).expect(204);
    const sent = await app.api
      .post(`/api/v1/studies/${app.study}/bytes`)
      .set('content-type', 'application/octet-stream')
      .send(Buffer.from(files.lines))
      .expect(201);
    await step('import-codes', { upload: (sent.body as { id: string }).id, file: 'codings.jsonl' });
    expect(await withCode('blame')).toBe(before);
  });

  it('go with what was coded by them when they are taken out of the book', async () => {
    const left = codes.filter(({ name }) => name !== 'blame').map(({ messages: _, ...code }) => code);
    const done = await step('edit-codebook', { codes: left });
    expect(done.sentence).toMatch(
      /^The codebook has 2 codes; 55 codings went with codes that were taken out\.$/,
    );
    expect(await withCode('blame')).toBe(0);
    // That it was looked at stays known.
    expect((await book()).coders.map(({ messages }) => messages)).toEqual([50, 50, 15]);
  });
});
