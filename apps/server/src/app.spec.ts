import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { StepKind } from '@pebble/contract';
import { fromArrow, messagesWithin, type DailyTieCounts } from '@pebble/core';
import { makePosts, postsAsCsv, postsAsJsonLines, postsAsTsv } from '@pebble/standins';
import { connect } from './storage/open';
import { buildThreads, TestApplication } from './testing/application';

const small = makePosts(600, 5);

describe('the application', () => {
  let app: TestApplication;
  let study: string;
  const api = () => app.api;
  const upload = (name: string, body: string | Uint8Array) => app.send(name, body);
  const step = (kind: StepKind, parameters: object) => app.step(kind, parameters);
  const importFile = async (name: string, body: string) => {
    const { id, preview } = await app.look(name, body);
    return step('import-source', { upload: id, file: name, name, reading: preview.reading });
  };
  const measured = async (network: string) => {
    for (let tries = 0; tries < 100; tries++) {
      const { body } = await api().get(`/api/v1/studies/${study}/networks/${network}`).expect(200);
      if (body.state === 'measured') return body;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    throw new Error('The network was not measured in time.');
  };

  beforeAll(buildThreads);
  beforeEach(async () => {
    app = new TestApplication();
    await app.begin();
    ({ study } = app);
  });
  afterEach(() => app.end());

  it('lists, renames, deletes and restores studies', async () => {
    await api().patch(`/api/v1/studies/${study}`).send({ name: 'Renamed' }).expect(200);
    await api().delete(`/api/v1/studies/${study}`).expect(204);
    const { body: without } = await api().get('/api/v1/studies').expect(200);
    expect([without.studies.length, without.deleted[0].name]).toEqual([0, 'Renamed']);
    await api().post(`/api/v1/studies/${study}/restore`).expect(200);
    expect((await api().get('/api/v1/studies')).body.studies).toHaveLength(1);
    expect((await api().post('/api/v1/studies').send({ name: ' ' }).expect(400)).body).toMatchObject({
      detail: 'A study needs a name.',
      field: 'name',
    });
  });

  it('imports posts from JSON Lines, CSV and TSV alike, with exact counts', async () => {
    const files = [
      ['a.jsonl', postsAsJsonLines(small.posts)],
      ['a.csv', postsAsCsv(small.posts)],
      ['a.tsv', postsAsTsv(small.posts)],
    ];
    for (const [i, [name, text]] of files.entries()) {
      const { body } = await importFile(name, text).then((r) => r);
      expect(body).toMatchObject({
        state: 'done',
        result: { read: 600, kept: i === 0 ? 600 : 0, duplicates: i === 0 ? 0 : 600, skipped: 0 },
      });
    }
    const { body: overview } = await api().get(`/api/v1/studies/${study}/overview`);
    expect([overview.messages, overview.accounts]).toEqual([600, small.truth.accounts]);
  });

  it('weaves the ties that were planted, measures them, and opens every tie onto its messages', async () => {
    await importFile('a.jsonl', postsAsJsonLines(small.posts));
    for (const kind of ['reply', 'quote', 'mention', 'repost'] as const) {
      const { body } = await api()
        .post(`/api/v1/studies/${study}/estimate`)
        .send({ what: 'accounts', kinds: [kind] })
        .expect(200);
      expect(body.edges).toBe(small.truth.ties[kind]);
    }
    const weave = { what: 'accounts', kinds: ['reply', 'quote', 'mention', 'repost'] };
    const { body: woven } = await step('weave', { name: 'All', weave }).expect(200);
    expect(woven.result).toMatchObject({ nodes: small.truth.accounts, edges: small.truth.ties.all });
    const network = await measured(woven.result.network);
    expect(network.measures.isolates).toBe(small.truth.isolates);

    const ties = (
      await api().get(`/api/v1/studies/${study}/networks/${network.id}/export/csv-ties`).expect(200)
    ).text
      .trim()
      .split('\r\n')
      .slice(1)
      .map((row) => row.split(','));
    const nodes = (
      await api().get(`/api/v1/studies/${study}/networks/${network.id}/export/csv-nodes`).expect(200)
    ).text
      .trim()
      .split('\r\n')
      .slice(1)
      .map((row) => row.split(',')[1]);
    for (const [source, target, weight] of ties.slice(0, 40)) {
      const query = { source: nodes.indexOf(source), target: nodes.indexOf(target) };
      const { body } = await api()
        .get(`/api/v1/studies/${study}/networks/${network.id}/evidence`)
        .query(query)
        .expect(200);
      expect(body.total).toBe(Number(weight));
      const [first] = body.messages;
      const { body: marks } = await api().get(
        `/api/v1/studies/${study}/networks/${network.id}/message-ties/${first.id}`,
      );
      expect(marks.ties).toContainEqual(query);
    }
    const { body: portrait } = await api()
      .get(`/api/v1/studies/${study}/networks/${network.id}/portrait/1`)
      .expect(200);
    expect(portrait.accounts).toBeGreaterThan(5);
    expect(portrait.hashtags[0].tag).toBe('LateLampPlan');
    const { body: bytes } = await api()
      .get(`/api/v1/studies/${study}/networks/${network.id}/daily-tie-counts.arrow`)
      .responseType('blob')
      .expect(200);
    const dailyTieCounts = fromArrow(bytes as Uint8Array) as unknown as DailyTieCounts;
    const always = messagesWithin(dailyTieCounts, network.edges, { from: null, until: null });
    // Every message of every tie has its day: the sums are the weights.
    expect([...always]).toEqual(ties.map(([, , weight]) => Number(weight)));
    expect(
      (await api().get(`/api/v1/studies/${study}/networks/${network.id}/export/graphml`).expect(200)).text,
    ).toContain('<graphml');
    expect(
      (
        await step('arrange-map', {
          network: network.id,
          layout: {},
          upload: null,
          iterations: null,
          moved: 0,
        }).expect(200)
      ).body.state,
    ).toBe('done');
    expect(
      (await api().get(`/api/v1/studies/${study}/networks/${network.id}/positions`).expect(200)).body,
    ).toHaveLength(network.nodes * 8);
    const { body: log } = await api().get(`/api/v1/studies/${study}/logbook`);
    // Portraits follow beside other steps, sooner or later.
    const kinds = (log.steps as { kind: string }[]).map(({ kind }) => kind);
    expect(kinds.filter((kind) => kind !== 'portray-groups')).toEqual([
      'arrange-map',
      'measure-network',
      'weave',
      'detect-languages',
      'import-source',
      'create-study',
    ]);
  });

  it('finds who is answered when only the id of the message is given, also when it comes later', async () => {
    await importFile('late.csv', 'id,author,text,in_reply_to\n2,bob,yes,1\n');
    expect(
      (
        await api()
          .post(`/api/v1/studies/${study}/estimate`)
          .send({ what: 'accounts', kinds: ['reply'] })
      ).body.edges,
    ).toBe(0);
    await importFile('first.csv', 'id,author,text,in_reply_to\n1,ann,hello @cy,\n3,dee,,1\n');
    await importFile('repost.csv', 'id,author,text,in_reply_to,kind\n4,eve,,1,repost\n');
    expect(
      (
        await api()
          .post(`/api/v1/studies/${study}/estimate`)
          .send({ what: 'accounts', kinds: ['reply'] })
      ).body.edges,
    ).toBe(1);
    expect(
      (
        await api()
          .post(`/api/v1/studies/${study}/estimate`)
          .send({ what: 'accounts', kinds: ['repost'] })
      ).body.edges,
    ).toBe(1);
    // The empty repost passes on the mention of cy.
    expect(
      (
        await api()
          .post(`/api/v1/studies/${study}/estimate`)
          .send({ what: 'accounts', kinds: ['mention'] })
      ).body.edges,
    ).toBe(2);
  });

  it('reads messages by text, author, hashtag, kind and time', async () => {
    await importFile(
      'a.csv',
      'id,author,text,time\n1,ann,"Hawk moths at the #Wall",2026-03-01T10:00:00Z\n2,bob,"café at the wall, @ann",2026-03-02T10:00:00Z\n3,ann,plain,\n',
    );
    const count = async (query: object): Promise<number> =>
      (await api().get(`/api/v1/studies/${study}/messages`).query(query).expect(200)).body.total;
    expect(await count({})).toBe(3);
    expect(await count({ text: 'moth' })).toBe(1);
    expect(await count({ text: 'cafe' })).toBe(1);
    expect(await count({ text: '"the wall"' })).toBe(2);
    expect(await count({ author: '@Ann' })).toBe(2);
    expect(await count({ hashtag: 'wall' })).toBe(1);
    expect(await count({ mentions: 'ann' })).toBe(1);
    expect(await count({ from: Date.UTC(2026, 2, 2), until: Date.UTC(2026, 2, 3) })).toBe(1);
    const { body: line } = await api().get(`/api/v1/studies/${study}/timeline`);
    expect([line.counts.reduce((a: number, b: number) => a + b, 0), line.undated]).toEqual([2, 1]);
  });

  it('lists what it skips, with line, field and reason, and keeps the rest', async () => {
    const { body } = await importFile(
      'b.csv',
      'id,author,text,time\n1,ann,x,2026-03-01\n2,,y,2026-03-01\n3,bob,z,never\n4,cy\n1,ann,x,2026-03-01\n99999999999999999999,dee,w,2026-03-02\n',
    );
    expect(body.result).toMatchObject({ read: 6, kept: 2, skipped: 3, duplicates: 1, duplicatesInFile: 1 });
    const { text } = await api().get(`/api/v1/studies/${study}/skipped/${body.id}`).expect(200);
    expect(text).toContain('3,author,The row has no author.');
    expect(text).toContain('4,time,The date cannot be read: “never”.');
    expect(text).toContain('5,,');
    expect(
      (await api().get(`/api/v1/studies/${study}/messages`).query({ author: 'dee' })).body.messages[0].key,
    ).toBe('99999999999999999999');
  });

  it('refuses a file that holds nothing to keep, and leaves the study as it was', async () => {
    await importFile('a.jsonl', postsAsJsonLines(small.posts));
    expect((await upload('empty.csv', '')).status).toBe(422);
    const { status, body } = await importFile('bad.csv', 'author,text\n,nobody\n');
    expect([status, body.title]).toEqual([422, 'The step could not be done']);
    expect(body.detail).toContain('Line 2: The row has no author.');
    const many = `author,text\n${'ann,x\n'.repeat(50_001)}`;
    expect((await importFile('many.csv', many)).body.detail).toContain('more than 50,000 rows');
    expect((await api().get(`/api/v1/studies/${study}`)).body).toMatchObject({
      messages: 600,
      accounts: small.truth.accounts,
    });
  });

  it('shows text as it came: control characters, right-to-left, emoji, markup', async () => {
    const text = '\u202eabc\u0007 🦋 <img src=x onerror=alert(1)> שלום';
    await importFile('odd.jsonl', `${JSON.stringify({ author: 'ann', text })}\n`);
    expect((await api().get(`/api/v1/studies/${study}/messages`)).body.messages[0].text).toBe(text);
  });

  it('shows a step that was running when the process was killed as interrupted, with nothing of it kept', async () => {
    await app.stop();
    const store = connect(app.studyFolder);
    await store.query
      .insertInto('step')
      .values({
        kind: 'import-source',
        state: 'running',
        parameters: '{}',
        result: null,
        sentence: 's',
        error: null,
        seed: null,
        started_at: '2026-01-01T00:00:00Z',
        ended_at: null,
        duration: null,
      })
      .execute();
    await store.close();
    await app.begin();
    const { body } = await api().get(`/api/v1/studies/${study}/logbook`);
    expect(body.steps[0]).toMatchObject({ state: 'interrupted' });
    expect(existsSync(join(app.studyFolder, 'study.sqlite'))).toBe(true);
  });

  it('cancels a running import and keeps nothing of it', async () => {
    const rows = Array.from(
      { length: 45_000 },
      (_, i) => `${i},ann${i % 900},"message ${i} @bob${i % 70} #tag${i % 40}"`,
    );
    const pending = importFile('large.csv', `id,author,text\n${rows.join('\n')}\n`).then(
      (response) => response,
    );
    let step: { id: number; state: string } | undefined;
    for (let tries = 0; tries < 400 && step?.state !== 'running'; tries++) {
      step = (await api().get(`/api/v1/studies/${study}/logbook`)).body.steps[0];
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
    expect(step?.state).toBe('running');
    await api().post(`/api/v1/studies/${study}/steps/${step!.id}/cancel`).expect(202);
    expect((await pending).body).toMatchObject({
      state: 'cancelled',
      error: expect.stringContaining('Nothing of this step was kept'),
    });
    expect((await api().get(`/api/v1/studies/${study}`)).body).toMatchObject({ messages: 0, accounts: 0 });
    expect((await api().get(`/api/v1/studies/${study}/sources`)).body).toEqual({
      total: 0,
      offset: 0,
      sources: [],
    });
    await api().post(`/api/v1/studies/${study}/steps/${step!.id}/cancel`).expect(404);
  });

  it.each([
    ['utf16le', (text: string) => Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(text, 'utf16le')])],
    ['latin1', (text: string) => Buffer.from(text, 'latin1')],
    ['utf8', (text: string) => Buffer.from(`\ufeff${text}`, 'utf8')],
  ] as const)('reads a file in %s', async (name, encode) => {
    const { id, preview } = await app.look(`${name}.csv`, encode('author;text\nzoë;déjà vu #été\n'));
    await step('import-source', { upload: id, file: name, name, reading: preview.reading }).expect(200);
    const { body: page } = await api().get(`/api/v1/studies/${study}/messages`);
    expect(page.messages[0]).toMatchObject({ text: 'déjà vu #été', author: { handle: 'zoë' } });
    expect(page.messages[0].spans[0].key).toBe('été');
  });

  it('looks at an upload again with corrected settings, and forgets it when asked', async () => {
    const { id, preview } = await app.look('a.csv', 'x,y,z\nann,hello,1\n');
    expect(preview.missing).toEqual(['author', 'text']);
    const columns = [
      { name: 'x', role: 'author' },
      { name: 'y', role: 'text' },
      { name: 'z', role: 'leave out' },
    ];
    const path = `/api/v1/studies/${study}/uploads/${id}`;
    const { body: again } = await api()
      .post(`${path}/preview`)
      .send({ file: 'a.csv', reading: { columns } })
      .expect(200);
    expect(again.missing).toEqual([]);
    await api().delete(path).expect(204);
    await api().post(`${path}/preview`).send({ file: 'a.csv', reading: {} }).expect(404);
    await api().post('/api/v1/studies/x/uploads/..%2F..%2Fetc/preview').expect(404);
  });

  it('tells its progress and its end as server-sent events', async () => {
    const answer = await fetch(`${app.address}/api/v1/studies/${study}/events`, { headers: app.withKey });
    const reader = answer.body!.getReader();
    await importFile('a.jsonl', postsAsJsonLines(small.posts));
    let heard = '';
    while (!heard.includes('"state":"done"')) heard += new TextDecoder().decode((await reader.read()).value);
    await reader.cancel();
    expect(heard).toContain('"type":"progress"');
    expect(heard).toContain('"kind":"import-source"');
  });

  it('keeps the description of a map, and refuses positions that do not fit', async () => {
    await importFile('a.jsonl', postsAsJsonLines(small.posts));
    const { body: woven } = await step('weave', {
      name: 'All',
      weave: { what: 'accounts', kinds: ['reply'] },
    });
    const network = await measured(woven.result.network);
    const { body: map } = await api().get(`/api/v1/studies/${study}/networks/${network.id}/map`).expect(200);
    const description = { ...map.description, names: { ...map.description.names, count: 7 } };
    await step('describe-map', { network: network.id, description }).expect(200);
    expect(
      (await api().get(`/api/v1/studies/${study}/networks/${network.id}/map`)).body.description.names.count,
    ).toBe(7);
    const { body: sent } = await api()
      .post(`/api/v1/studies/${study}/bytes`)
      .set('content-type', 'application/octet-stream')
      .send(Buffer.alloc(16))
      .expect(201);
    const { body: refused } = await step('arrange-map', {
      network: network.id,
      layout: {},
      upload: sent.id,
      iterations: 1,
      moved: 0,
    }).expect(422);
    expect(refused.detail).toContain('positions for 2');
    await step('delete-network', { network: network.id }).expect(200);
    await api().get(`/api/v1/studies/${study}/networks/${network.id}`).expect(404);
    await step('restore-network', { network: network.id }).expect(200);
    await api().get(`/api/v1/studies/${study}/networks/${network.id}`).expect(200);
  });

  it('answers only to this machine, and says what is wrong in problem details', async () => {
    const wrong = await api().get('/api/v1/health').set('host', 'evil.example').expect(403);
    expect(wrong.headers['content-type']).toContain('application/problem+json');
    await api().get('/api/v1/health').set('origin', 'http://evil.example').expect(403);
    await api().get('/api/v1/nothing').expect(404);
    await api().get(`/api/v1/studies/${study}/networks/nothing`).expect(404);
    await step('weave', { name: 'x', weave: { what: 'accounts', kinds: [] } }).expect(400);
    const { headers } = await api().get('/api/v1/health').expect(200);
    expect(headers['content-security-policy']).toContain("default-src 'self'");
  });

  it('describes itself as OpenAPI', async () => {
    const { body } = await api().get('/api/v1/openapi.json').expect(200);
    expect(body.openapi).toBe('3.1.0');
    expect(Object.keys(body.paths)).toContain('/studies/{study}/steps');
  });
});
