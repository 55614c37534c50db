import { strToU8, zipSync } from 'fflate';
import type { MessageOverview, Message, MessagePage, Network, Source, Study } from '@pebble/contract';
import { fromArrow } from '@pebble/core';
import { emailsAsMbox, makeEmails, makePosts, postsAsActivities, postsAsJsonLines } from '@pebble/standins';
import { buildThreads, TestApplication } from './testing/application';
import { workbook } from './testing/workbook';

const lines = (...all: string[]): string => `${all.join('\r\n')}\r\n`;
const mail = (
  id: string,
  from: string,
  to: string,
  subject: string,
  text: string,
  more: string[] = [],
): string =>
  lines(
    `From: ${from}`,
    `To: ${to}`,
    `Subject: ${subject}`,
    'Date: Tue, 31 Mar 2026 14:05:09 +0100',
    `Message-ID: <${id}@quay.example>`,
    ...more,
    '',
    text,
  );

describe('gathering', () => {
  let app: TestApplication;
  const messages = async (query: object = {}): Promise<Message[]> =>
    (await app.get<MessagePage>('messages', query)).messages;
  const counts = async (): Promise<Pick<Study, 'messages' | 'accounts'>> => {
    const { messages, accounts } = (await app.api.get(`/api/v1/studies/${app.study}`)).body as Study;
    return { messages, accounts };
  };
  const measured = async (): Promise<Network> => {
    for (let tries = 0; tries < 100; tries++) {
      const [network] = await app.list<Network>('networks');
      if (network?.state === 'measured') return network;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    throw new Error('The network was not measured in time.');
  };
  const tables = async (network: string) => {
    const read = async (table: string) => {
      const { body } = await app.api
        .get(`/api/v1/studies/${app.study}/networks/${network}/${table}.arrow`)
        .buffer()
        .parse((response, done) => {
          const parts: Buffer[] = [];
          response.on('data', (part: Buffer) => parts.push(part));
          response.on('end', () => done(null, Buffer.concat(parts)));
        });
      return fromArrow(new Uint8Array(body as Buffer));
    };
    return { nodes: await read('nodes'), edges: await read('edges') };
  };

  beforeAll(buildThreads);
  beforeEach(async () => {
    app = new TestApplication();
    await app.begin();
  });
  afterEach(() => app.end());

  describe('emails', () => {
    const box = [
      [
        '1',
        'Ann <ann@quay.example>',
        'Lamps <lamps@council.example>, ben@quay.example',
        'Lamps',
        'Dim them.',
        [],
      ],
      [
        '2',
        'lamps@council.example',
        'Ann <ann@quay.example>',
        'Re: Lamps',
        'We will.\r\n\r\n> Dim them.',
        ['Cc: <press@paper.example>', 'In-Reply-To: <1@quay.example>'],
      ],
    ] as const;
    const mbox = box
      .map(
        ([id, from, to, subject, text, more]) =>
          `From x@y.example Tue Mar 31 14:05:09 2026\n${mail(id, from, to, subject, text, [...more])}\n`,
      )
      .join('');

    it('come in from a mailbox with their people, subjects and threads', async () => {
      const step = await app.take('council.mbox', mbox);
      expect(step.result).toMatchObject({
        unit: 'email',
        kept: 2,
        authors: 2,
        accountsNew: 4,
        parentsMissing: 0,
      });
      const [first, second] = await messages();
      expect(first).toMatchObject({
        key: '1@quay.example',
        kind: 'email',
        subject: 'Lamps',
        author: { handle: 'ann@quay.example', name: 'Ann' },
      });
      expect(second).toMatchObject({
        text: 'We will.',
        parent: { id: first.id, handle: 'ann@quay.example' },
        attributes: { quoted: '> Dim them.' },
        addressed: [
          { handle: 'ann@quay.example', name: 'Ann', how: 'to' },
          { handle: 'press@paper.example', name: null, how: 'cc' },
        ],
        author: { handle: 'lamps@council.example', name: 'Lamps' },
      });
      expect((await app.get<{ addressKinds: string[] }>('overview')).addressKinds).toEqual([
        'reply',
        'to',
        'cc',
      ]);
    });

    it('are found by words of their subject too', async () => {
      await app.take('council.mbox', mbox);
      expect(await messages({ text: 'lamps' })).toHaveLength(2);
    });

    it('weave into who writes to whom', async () => {
      await app.take('council.mbox', mbox);
      await app
        .step('weave', { name: 'Mail', weave: { what: 'accounts', kinds: ['to', 'cc'], atLeast: 1 } })
        .expect(200);
      const network = await measured();
      const { nodes, edges } = await tables(network.id);
      const handle = (v: number): string => (nodes['handle'] as string[])[v];
      const ties = Array.from(
        edges['source'] as Uint32Array,
        (a, e) => `${handle(a)} ${handle(Number(edges['target'][e]))}`,
      );
      expect(ties.sort()).toEqual([
        'ann@quay.example ben@quay.example',
        'ann@quay.example lamps@council.example',
        'lamps@council.example ann@quay.example',
        'lamps@council.example press@paper.example',
      ]);
      expect(Object.keys(edges)).toContain('copies');
    });

    it('come in from a zip of single emails as one source', async () => {
      const zip = zipSync({
        'in/1.eml': strToU8(mail('1', 'a@x.example', 'b@x.example', 'one', 'From the quay.')),
        '../../2.eml': strToU8(mail('2', 'b@x.example', 'a@x.example', 'two', 'x')),
      });
      const refused = await app.send('mails.zip', zip).expect(422);
      expect((refused.body as { detail: string }).detail).toContain('invalid relative path');
      const good = zipSync({
        'in/1.eml': strToU8(mail('1', 'a@x.example', 'b@x.example', 'one', 'From the quay.')),
        'in/2.eml': strToU8(mail('2', 'b@x.example', 'a@x.example', 'two', 'x')),
      });
      const step = await app.take('mails.zip', good);
      expect(step.result).toMatchObject({ kept: 2 });
      expect((await messages())[0].text).toBe('From the quay.');
    });
  });

  it('takes ActivityStreams in, with mentions by tag and reposts of what is there', async () => {
    const note = {
      type: 'Note',
      id: 'https://hub.example/1',
      attributedTo: 'https://hub.example/@ann',
      published: '2026-03-01T10:00:00Z',
      content: '<p>@ben look at <a href="#">#lamps</a></p>',
      tag: [
        { type: 'Mention', href: 'https://other.example/@ben', name: '@ben' },
        { type: 'Hashtag', name: '#NightSky' },
      ],
    };
    const collection = {
      '@context': 'https://www.w3.org/ns/activitystreams',
      type: 'OrderedCollection',
      orderedItems: [
        note,
        {
          type: 'Announce',
          id: 'https://hub.example/2',
          actor: 'https://hub.example/@cy',
          object: note.id,
          published: '2026-03-01T11:00:00Z',
        },
        { type: 'Tombstone', id: 'https://hub.example/3' },
      ],
    };
    const step = await app.take('outbox.json', JSON.stringify(collection));
    expect(step.result).toMatchObject({ unit: 'activity', read: 3, kept: 2, skipped: 1, accountsNew: 3 });
    const found = await messages();
    expect(found.map(({ kind, author }) => `${kind} ${author.handle}`)).toEqual([
      'post ann@hub.example',
      'repost cy@hub.example',
    ]);
    expect(found[1].parent).toMatchObject({ handle: 'ann@hub.example' });
    expect(await messages({ hashtag: 'nightsky' })).toHaveLength(1);
    // A repost passes on the mentions of what it reposts.
    expect(await messages({ mentions: 'ben@other.example' })).toHaveLength(2);
  });

  it('takes a JSON document in like JSON Lines', async () => {
    const posts = [
      { id: 1, author: 'ann', text: 'hello', likes: 3 },
      { id: 2, author: 'ben', text: '@ann hi', user: { name: 'Ben' } },
    ];
    expect((await app.take('posts.json', JSON.stringify({ meta: {}, posts }, null, 2))).result).toMatchObject(
      { kept: 2 },
    );
    expect((await messages())[0].numbers).toEqual({ likes: 3 });
  });

  it('takes the chosen sheet of a workbook in', async () => {
    const book = workbook({
      Notes: [['just a note']],
      Posts: [
        ['author', 'text', 'time'],
        ['ann', 'hello & <b>', '2026-03-01 10:00'],
        ['', '', ''],
        ['ben', '', '2026-03-01 11:00'],
      ],
    });
    const { id, preview } = await app.look('posts.xlsx', book);
    expect(preview).toMatchObject({
      sheets: ['Notes', 'Posts'],
      reading: { format: 'xlsx', sheet: 'Posts' },
    });
    const step = await app
      .step('import-source', {
        upload: id,
        file: 'posts.xlsx',
        name: 'posts.xlsx',
        reading: preview.reading,
      })
      .expect(200);
    expect((step.body as { result: object }).result).toMatchObject({ read: 2, kept: 1, skipped: 1 });
    expect((await messages())[0].text).toBe('hello & <b>');
  });

  it('tells of a file of an archive whose checksum is wrong, and takes the others', async () => {
    const zip = zipSync({
      'good.csv': strToU8('author,text\nann,hello\n'),
      'damaged.csv': [strToU8('author,text\nben,hello\n'), { level: 0 }],
    });
    // One letter of the stored file is another.
    const at = Buffer.from(zip).indexOf('ben,');
    zip[at] = 'c'.charCodeAt(0);
    const { body } = await app.send('two.zip', zip).expect(201);
    const answer = body as { uploads: { preview: { file: string } }[]; refused: object[] };
    expect(answer.uploads.map(({ preview }) => preview.file)).toEqual(['good.csv']);
    expect(answer.refused).toEqual([
      {
        file: 'damaged.csv',
        reason: expect.stringContaining('do not fit the checksum') as string,
        row: null,
      },
    ]);
  });

  it('takes an ActivityStreams collection in whose first item is larger than what is looked at', async () => {
    const item = (id: number, content: string) => ({
      type: 'Note',
      id: `https://hub.example/${id}`,
      attributedTo: 'https://hub.example/@ann',
      published: '2026-03-01T10:00:00Z',
      content,
    });
    const collection = {
      '@context': 'https://www.w3.org/ns/activitystreams',
      type: 'OrderedCollection',
      orderedItems: [item(1, `<p>${'moths and lamps '.repeat(20_000)}</p>`), item(2, '<p>hello</p>')],
    };
    const step = await app.take('hub.json', JSON.stringify(collection));
    expect(step.result).toMatchObject({ read: 2, kept: 2, skipped: 0 });
    expect((await messages()).map(({ text }) => text.length)).toEqual([319_999, 5]);
  });

  it('looks at every file of an archive, and one that cannot be read keeps the others from nothing', async () => {
    const zip = zipSync({
      'posts.csv': strToU8('author,text\nann,hello\n'),
      'empty.csv': strToU8(''),
      '.hidden': strToU8('x'),
      '__MACOSX/posts.csv': strToU8('x'),
      'ties.csv': strToU8('source,target\na,b\n'),
    });
    const { body } = await app.send('all.zip', zip).expect(201);
    const answer = body as {
      uploads: { preview: { file: string; reading: { material: string } } }[];
      refused: object[];
    };
    expect(answer.uploads.map(({ preview }) => `${preview.file} ${preview.reading.material}`)).toEqual([
      'posts.csv messages',
      'ties.csv network',
    ]);
    expect(answer.refused).toEqual([{ file: 'empty.csv', reason: 'The file is empty.', row: null }]);
  });

  it('keeps a reading under a name and offers it for files with the same columns', async () => {
    const { preview } = await app.look('a.csv', 'x,y,when\nann,hello,01/02/2026\n');
    const columns = [
      { name: 'x', role: 'author' },
      { name: 'y', role: 'text' },
      { name: 'when', role: 'time' },
    ];
    const reading = { ...preview.reading, columns, dateForm: 'month-day-year' };
    const save = (name: string) => app.api.post('/api/v1/readings').send({ name, reading });
    await save('Export of the library').expect(201);
    await save('Export of the library').expect(201);
    await save('  ').expect(400);
    const again = await app.look('b.csv', 'x,y,when\nben,there,03/04/2026\n');
    expect(again.preview.saved).toMatchObject([{ name: 'Export of the library', reading: { columns } }]);
    expect((await app.look('c.csv', 'x,y\nben,there\n')).preview.saved).toEqual([]);
    await app.api.delete(`/api/v1/readings/${again.preview.saved[0].id}`).expect(204);
    await app.api.delete(`/api/v1/readings/${again.preview.saved[0].id}`).expect(404);
  });

  it('refuses an archive that grows beyond reason', async () => {
    const zip = zipSync({ 'zeros.csv': [new Uint8Array(70_000_000), { level: 1 }] });
    const { body } = await app.send('bomb.zip', zip).expect(422);
    expect((body as { detail: string }).detail).toContain('grow beyond reason');
  });

  describe('a finished network', () => {
    it('comes in from a list of ties and is measured', async () => {
      const step = await app.take(
        'ties.csv',
        'Source,Target,Weight,mood\na,b,2,calm\nb,c,1,\na,b,3,loud\nd,,,\nx,y,-1,\n',
      );
      expect(step.result).toMatchObject({ nodes: 4, edges: 2, directed: true, read: 5, skipped: 1 });
      const network = await measured();
      expect(network).toMatchObject({ weave: null, directed: true, messages: 0 });
      const { nodes, edges } = await tables(network.id);
      expect(nodes['handle']).toEqual(['a', 'b', 'c', 'd']);
      expect([...(edges['weight'] as Float64Array)]).toEqual([5, 1]);
      expect(edges['mood']).toEqual(['calm', '']);
      expect([...(nodes['inDegree'] as Uint32Array)]).toEqual([0, 1, 1, 0]);
    });

    // Krackhardt (1990), Administrative Science Quarterly 35: the kite; D has degree 6, H the highest betweenness, 14 of 36 pairs.
    it('that is undirected has degrees and betweenness of an undirected network', async () => {
      const pairs = 'AB AC AD AF BD BE BG CD CF DE DF DG EG FG FH GH HI IJ'.split(' ');
      await app.take('kite.dot', `graph kite { ${pairs.map(([a, b]) => `${a} -- ${b};`).join(' ')} }`);
      const network = await measured();
      expect(network.directed).toBe(false);
      expect(network.columns.map(({ name }) => name)).not.toContain('inDegree');
      const { nodes } = await tables(network.id);
      const at = (name: string): number => (nodes['handle'] as string[]).indexOf(name);
      expect(nodes['degree'][at('D')]).toBe(6);
      expect(Number(nodes['betweenness'][at('H')])).toBeCloseTo(14 / 36, 10);
      const { body } = await app.api
        .get(`/api/v1/studies/${app.study}/networks/${network.id}/map`)
        .expect(200);
      expect((body as { description: { size: { column: string } } }).description.size.column).toBe('degree');
    });

    it('has no messages behind its ties, and says so', async () => {
      await app.take('ties.tsv', 'from\tto\na\tb\n');
      const network = await measured();
      const { body } = await app.api
        .get(`/api/v1/studies/${app.study}/networks/${network.id}/evidence`)
        .query({ node: 0 })
        .expect(409);
      expect((body as { detail: string }).detail).toContain('no messages behind its ties');
    });

    it('that is broken is refused with its line, and the study stays as it was', async () => {
      const { body } = await app
        .send('broken.graphml', '<graphml>\n<graph>\n<node/>\n</graph></graphml>')
        .expect(422);
      expect(body).toMatchObject({ detail: 'A node has no id.', row: 3 });
      expect(await app.list<Network>('networks')).toEqual([]);
    });

    it('reads back the same from what we export', async () => {
      await app.take('ties.csv', 'source,target,weight\na,b,2\nb,c,1\nc,c,4\n');
      const first = await measured();
      const { text } = await app.api
        .get(`/api/v1/studies/${app.study}/networks/${first.id}/export/graphml`)
        .expect(200);
      await app.take('again.graphml', text);
      const networks = await app.list<Network>('networks');
      expect(networks.map(({ nodes, edges }) => [nodes, edges])).toEqual([
        [3, 3],
        [3, 3],
      ]);
    });
  });

  describe('the demo files', () => {
    it('of emails come in with the counts that were planted', async () => {
      const { emails, truth } = makeEmails();
      const step = await app.take('council.mbox', emailsAsMbox(emails));
      expect(step.result).toMatchObject({ kept: truth.emails, skipped: 0, duplicates: 0, parentsMissing: 0 });
      expect((await counts()).accounts).toBe(truth.addresses);
      const weave = { what: 'accounts', kinds: ['to', 'cc'], atLeast: 1 };
      const { body } = await app.api.post(`/api/v1/studies/${app.study}/estimate`).send(weave).expect(200);
      expect(body).toMatchObject({ edges: truth.pairs, messages: truth.emails });
      const roots = (await messages({ limit: 200 })).filter(({ parent }) => parent === null);
      expect(roots[0].text).not.toContain('>');
      expect(roots[0].attributes['signature']).not.toBe('');
    });

    it('of ActivityStreams hold the same posts as the other formats', async () => {
      const { posts } = makePosts(900, 5);
      await app.take('posts.jsonl', postsAsJsonLines(posts));
      const plain = await app.get<{ kinds: object[]; messages: number }>('overview');
      const [source] = await app.list<Source>('sources');
      await app.step('remove-source', { source: source.id, name: source.name }).expect(200);
      const step = await app.take('posts.json', postsAsActivities(posts));
      expect(step.result).toMatchObject({ kept: posts.length, skipped: 0 });
      expect((await app.get<{ messages: number }>('overview')).messages).toBe(plain.messages);
    });

    it('that are broken say what is left out, and keep the rest', async () => {
      const { emails } = makeEmails(12);
      const broken = emailsAsMbox(emails)
        .replace(/^Date: .*$/m, 'Date: the other day')
        .replace(/^From: .*$/gm, (line, at: number) => (at > 3000 && at < 3700 ? 'X-From: nobody' : line));
      const step = await app.take('broken.mbox', broken);
      const result = step.result as unknown as {
        kept: number;
        skipped: number;
        skippedByReason: { reason: string }[];
      };
      expect(result.kept + result.skipped).toBe(12);
      expect(result.skipped).toBeGreaterThan(0);
      expect(result.skippedByReason.map(({ reason }) => reason)).toContain('The date cannot be read');
    });
  });

  describe('the reading list', () => {
    const rows = [
      '1,ann,The lamps on the sea wall are dimmed #LateLampPlan',
      '2,ben,@ann moths like amber lamps',
      '3,cy,see https://lampfacts.example/a_b?x=1',
      '4,ann,pie on the sea #PieFriday',
      '5,dee,nothing about it',
    ];
    const found = async (text: string): Promise<string> =>
      (await messages({ text }))
        .map(({ key }) => key)
        .sort()
        .join(' ');

    beforeEach(() => app.take('posts.csv', `id,author,text\n${rows.join('\n')}\n`));

    it.each([
      ['lamps ', '1 2'],
      ['lam', '1 2 3'],
      ['"sea wall"', '1'],
      ['sea -wall ', '4'],
      ['lamps OR pie ', '1 2 4'],
      ['(lamps OR pie) NOT #LateLampPlan', '2 4'],
      ['#piefriday', '4'],
      ['@ann', '1 2 4'],
      ['@ann moths ', '2'],
      ['lampfacts.example/a_b', '3'],
      ['NOT (lamps OR sea) ', '3 5'],
      ['', '1 2 3 4 5'],
    ])('finds by %j', async (text, keys) => {
      expect(await found(text)).toBe(keys);
    });

    it('says what is wrong with a search', async () => {
      const { body } = await app.api
        .get(`/api/v1/studies/${app.study}/messages`)
        .query({ text: '(lamps' })
        .expect(400);
      expect((body as { detail: string }).detail).toBe('A parenthesis is not closed (at character 1).');
    });

    it('draws the same random sample for the same seed', async () => {
      const drawn = async (seed: number): Promise<string[]> =>
        (await messages({ sample: 2, seed })).map(({ key }) => key);
      expect(await drawn(3)).toHaveLength(2);
      expect(await drawn(3)).toEqual(await drawn(3));
      const many = await Promise.all([1, 2, 3, 4, 5, 6].map(drawn));
      expect(new Set(many.map(String)).size).toBeGreaterThan(1);
    });
  });

  describe('a source', () => {
    const one = 'id,author,text\n1,ann,@ben look #lamps\n2,ben,hello\n';
    const two = 'id,author,text\n3,ann,again #lamps\n';

    it('is taken out as a whole, and taken back', async () => {
      await app.take('one.csv', one);
      await app.take('two.csv', two);
      const [source] = await app.list<Source>('sources');
      await app.step('remove-source', { source: source.id, name: source.name }).expect(200);
      expect(await counts()).toEqual({ messages: 1, accounts: 1 });
      expect(await messages({ text: 'look' })).toEqual([]);
      expect(await messages({ hashtag: 'lamps' })).toHaveLength(1);
      const { hashtags, authors } = await app.get<MessageOverview>('overview');
      expect(hashtags).toEqual([{ tag: 'lamps', messages: 1 }]);
      expect(authors).toMatchObject([{ handle: 'ann', messages: 1 }]);
      expect((await app.list<Source>('sources'))[0].removedAt).not.toBeNull();
      await app.step('remove-source', { source: source.id, name: source.name }).expect(422);

      await app.step('restore-source', { source: source.id, name: source.name }).expect(200);
      expect(await counts()).toEqual({ messages: 3, accounts: 2 });
      expect(await messages({ hashtag: 'lamps' })).toHaveLength(2);
      expect(await messages({ mentions: 'ben' })).toHaveLength(1);
    });

    it('can come again while it is out; what came again stays as it is there', async () => {
      await app.take('one.csv', one);
      const [source] = await app.list<Source>('sources');
      await app.step('remove-source', { source: source.id, name: source.name }).expect(200);
      expect(await counts()).toEqual({ messages: 0, accounts: 0 });
      await app.take('again.csv', 'id,author,text\n2,BEN,hello again\n');
      const { body } = await app.step('restore-source', { source: source.id, name: source.name }).expect(200);
      expect((body as { result: object }).result).toEqual({ messages: 1, again: 1 });
      expect(await counts()).toEqual({ messages: 2, accounts: 2 });
      const [mention] = await messages({ mentions: 'ben' });
      expect(mention.text).toContain('look');
    });
  });
});
