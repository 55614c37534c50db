import type { Message, MessagePage, Network, Source, Step } from '@pebble/contract';
import { startedApplication } from './testing/application';
import { workbook } from './testing/workbook';

const app = startedApplication();

const reportOf = (step: Step) => step.result as unknown as Source['report'];
const byKey = (messages: readonly Message[]) =>
  Object.fromEntries(
    messages.map(({ key, kind, item }) => [key, [kind, item?.key ?? null, item?.title ?? null]]),
  );

describe('items and comments', () => {
  it('ties comments to their items, whichever comes first, and counts those whose item is not there', async () => {
    const comments = await app.take(
      'comments.csv',
      'comment_id,video_id,author,text,parent_id\nc1,v1,ann,Lovely lamps,\nc2,v1,ben,Not for moths,c1\nc3,v9,cleo,Where,\n',
    );
    expect(reportOf(comments)).toMatchObject({ kept: 3, items: 0, itemsMissing: 3, parentsMissing: 0 });
    const videos = await app.take(
      'videos.csv',
      'video_id,title,channel,views,published_at\nv1,Lamps at dusk,quay_films,120,2026-03-02\n',
    );
    expect(reportOf(videos)).toMatchObject({ kept: 0, items: 1, itemsMissing: 0 });
    expect(videos.sentence).toBe('1 item was imported from videos.csv.');
    const { messages } = await app.get<MessagePage>('messages');
    expect(byKey(messages)).toEqual({
      c1: ['comment', 'v1', 'Lamps at dusk'],
      c2: ['reply', 'v1', 'Lamps at dusk'],
      c3: ['comment', 'v9', null],
    });
  });

  it('takes the title from the comments, and the rest from the table of items when it comes', async () => {
    await app.take('more.csv', 'comment_id,video_id,video_title,author,text\nd1,v2,The vote,ann,Well\n');
    await app.take(
      'again.csv',
      'video_id,title,channel,views\nv2,The vote (live),council_tv,9\nv1,Other,quay_films,1\n',
    );
    const { items } = await app.get<{ items: { key: string; title: string; channel: string | null }[] }>(
      'items',
    );
    expect(items.map(({ key, title, channel }) => [key, title, channel]).sort()).toEqual([
      ['v1', 'Lamps at dusk', 'quay_films'],
      ['v2', 'The vote (live)', 'council_tv'],
    ]);
  });

  it('finds the item of an answer in ActivityStreams by climbing to it', async () => {
    const note = (id: string, inReplyTo: string) => ({
      type: 'Note',
      id: `https://reel.example/c/${id}`,
      attributedTo: 'https://reel.example/@ann',
      content: 'x',
      inReplyTo: `https://reel.example/${inReplyTo}`,
    });
    const video = {
      type: 'Video',
      id: 'https://reel.example/v/7',
      name: 'Ferry',
      attributedTo: 'https://reel.example/@quay',
    };
    const lines = [note('2', 'c/1'), note('1', 'v/7'), video].map((one) => JSON.stringify(one)).join('\n');
    const step = await app.take('reel.jsonl', `${lines}\n`);
    expect(reportOf(step)).toMatchObject({ read: 3, kept: 2, items: 1, parentsMissing: 0, itemsMissing: 0 });
    const { messages } = await app.get<MessagePage>('messages', { text: 'x' });
    expect(messages.map(({ kind, item }) => [kind, item?.title])).toEqual(
      expect.arrayContaining([
        ['comment', 'Ferry'],
        ['reply', 'Ferry'],
      ]),
    );
  });
});

describe('followers and details of accounts', () => {
  it('keeps who follows whom, and what is told of the followers', async () => {
    const one = await app.take(
      'followers of quay_films.csv',
      'handle,name,followers,location\nann,Ann H.,12,Sallowmere\nben,Ben,7,\nann,Ann H.,12,Sallowmere\n',
    );
    expect(reportOf(one)).toMatchObject({ read: 3, follows: 2, followsAgain: 1, profiles: 2, kept: 0 });
    const two = await app.take('list.csv', 'follower,followed\nben,quay_films\ndora,quay_films\n');
    expect(reportOf(two)).toMatchObject({ follows: 1, followsAgain: 1 });
    const { accounts } = await app.get<AccountPage>('accounts', { search: 'quay_f' });
    expect(accounts[0]).toMatchObject({ handle: 'quay_films', followersHere: 3, messages: 0 });
  });

  it('adds details to accounts that are there, and lists those that match nothing', async () => {
    const step = await app.take(
      'people.csv',
      'handle,bio,joined\n@Ann,I film lamps,2019-05-01\nnobody_else,Hm,\n',
    );
    expect(reportOf(step)).toMatchObject({ profiles: 1, skipped: 1, accountsNew: 0 });
    const list = await app.api.get(`/api/v1/studies/${app.study}/skipped/${step.id}`).expect(200);
    expect(list.text).toContain('No account of the study has the handle “nobody_else”.');
    const { accounts } = await app.get<AccountPage>('accounts', { search: 'ann' });
    // Of several sources the latest holds; what it does not tell stays.
    expect(accounts.find(({ handle }) => handle === 'ann')!.profile).toMatchObject({
      description: 'I film lamps',
      location: 'Sallowmere',
      joined: Date.UTC(2019, 4, 1),
      numbers: { followers: 12 },
    });
  });

  it('takes all of it out with its source, and back', async () => {
    const sources = await app.list<Source>('sources');
    const list = sources.find(({ name }) => name === 'list.csv')!;
    const all = async () => (await app.get<AccountPage>('accounts', { search: 'dora' })).accounts.length;
    await app.step('remove-source', { source: list.id, name: list.name }).expect(200);
    expect(await all()).toBe(0);
    await app.step('restore-source', { source: list.id, name: list.name }).expect(200);
    expect(await all()).toBe(1);
  });

  it('refuses details of which none is about an account of the study', async () => {
    const { id, preview } = await app.look('strangers.csv', 'handle,bio\nx1,Hello\nx2,There\n');
    const answer = await app
      .step('import-source', { upload: id, file: 'strangers.csv', name: 's', reading: preview.reading })
      .expect(422);
    expect((answer.body as { detail: string }).detail).toContain('Nothing about accounts of this study');
  });
});

describe('several files as one source', () => {
  it('counts them together, and keeps with each message and skipped row the name of its file', async () => {
    const files = [
      await app.look('m1.csv', 'id,author,text\nx1,ann,one\nx2,ben,two @ann\n'),
      await app.look('m2.csv', 'id,author,text\nx2,ben,again\nx3,gus,three\nx4,,nobody\n'),
    ];
    const [first, second] = files.map(({ id, preview }) => ({
      upload: id,
      file: preview.file,
      reading: preview.reading,
    }));
    const answer = await app.step('import-source', { ...first, name: 'both', more: [second] }).expect(200);
    const step = answer.body as Step;
    expect(reportOf(step)).toMatchObject({
      read: 5,
      kept: 3,
      duplicatesInFile: 1,
      skipped: 1,
      accountsNew: 1,
    });
    expect(step.sentence).toContain('imported from m1.csv and m2.csv');
    const list = await app.api.get(`/api/v1/studies/${app.study}/skipped/${step.id}`).expect(200);
    expect(list.text).toContain('4,author,The row has no author.,m2.csv');
    const { messages } = await app.get<MessagePage>('messages', { source: reportOf(step).source });
    expect(messages.map(({ key, attributes }) => [key, attributes['file']])).toEqual([
      ['x1', 'm1.csv'],
      ['x2', 'm1.csv'],
      ['x3', 'm2.csv'],
    ]);
  });
});

describe('two-mode data and groups', () => {
  let network = '';

  it('makes a directed network of people and things', async () => {
    const step = await app.take('sheet.csv', 'name,March,April\nAnn,yes,NO\nBen,Yes,yes\nCleo,no,yes\n');
    network = String(step.result?.['network']);
    expect(step.result).toMatchObject({ nodes: 5, edges: 4, directed: true });
    const { body } = await app.api.get(`/api/v1/studies/${app.study}/networks/${network}`).expect(200);
    expect((body as Network).columns).toContainEqual(expect.objectContaining({ name: 'mode' }));
    const map = await app.api.get(`/api/v1/studies/${app.study}/networks/${network}/map`).expect(200);
    expect(map.body).toMatchObject({ description: { colour: { column: 'mode' } } });
  });

  const give = async (text: string, status: number) => {
    const { id, preview } = await app.look('groups.csv', text);
    expect(preview.reading.material).toBe('groups');
    return app
      .step('add-groups', {
        network,
        upload: id,
        file: 'groups.csv',
        column: 'side',
        reading: preview.reading,
      })
      .expect(status);
  };

  it('adds groups as a column when there is one for each node', async () => {
    const answer = await give('node,group\nann,a\nben,a\ncleo,b\nMarch,event\nApril,event\n', 200);
    expect((answer.body as Step).result).toMatchObject({ nodes: 5, groups: 3 });
    const { body } = await app.api.get(`/api/v1/studies/${app.study}/networks/${network}`).expect(200);
    expect((body as Network).columns).toContainEqual(
      expect.objectContaining({ name: 'side', type: 'category' }),
    );
  });

  it('shows the difference otherwise, and changes nothing', async () => {
    const answer = await give('node,group\nann,a\nben,a\nzoe,b\n', 422);
    const { detail } = answer.body as { detail: string };
    expect(detail).toContain('3 nodes have no group (Cleo, March, April)');
    expect(detail).toContain('1 name of the file is not in the network (zoe)');
    expect(detail).toContain('Nothing was changed');
  });

  it('takes a plain list in the order of the network', async () => {
    expect(((await give('x\ny\nx\ny\nx\n', 200)).body as Step).result).toMatchObject({ groups: 2 });
  });
});

describe('nodes in a table of their own', () => {
  const TIES = 'source,target,weight\na,b,2\nb,c,1\nc,z,1\n';
  const NODES =
    'id,label,kind,members\na,Ann,person,3\nb,Ben,person,\nc,Clubhouse,place,12\nd,Dora,person,1\nb,Benno,person,9\n';
  const columnsOf = async (network: unknown): Promise<string[]> => {
    const { body } = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${String(network)}`)
      .expect(200);
    return (body as Network).columns.map(({ name, type }) => `${name} ${type}`);
  };

  it('come beside a list of ties: labels, columns and nodes without a tie', async () => {
    const ties = await app.look('ties.csv', TIES);
    const nodes = await app.look('nodes.csv', NODES);
    expect(nodes.preview.reading.material).toBe('nodes');
    expect(nodes.preview.outcome).toBe('The table tells of 4 nodes; kept of each: kind, members.');
    const { body } = await app
      .step('import-network', {
        upload: ties.id,
        file: 'ties.csv',
        name: 'Quay',
        reading: ties.preview.reading,
        nodes: { upload: nodes.id, file: 'nodes.csv', reading: nodes.preview.reading },
      })
      .expect(200);
    const { result, sentence } = body as Step;
    expect(result).toMatchObject({
      nodes: 5,
      edges: 3,
      read: 8,
      skipped: 1,
      notes: ['1 end of ties is not in the table of nodes and became a node without details.'],
    });
    expect(sentence).toContain('from ties.csv and nodes.csv; 1 row');
    expect(await columnsOf(result?.['network'])).toEqual(
      expect.arrayContaining(['kind text', 'members number']),
    );
  });

  it('come from a sheet beside the sheet of ties', async () => {
    const table = (text: string): string[][] =>
      text
        .trim()
        .split('\n')
        .map((line) => line.split(','));
    const file = 'quay.xlsx';
    const { id, preview } = await app.look(
      file,
      workbook({ Nodes: table(NODES), Ties: table(TIES), Notes: [['about'], ['nothing']] }),
    );
    expect(preview).toMatchObject({ nodeSheet: 'Nodes', reading: { material: 'network', sheet: 'Ties' } });
    const { body: nodes } = await app.api
      .post(`/api/v1/studies/${app.study}/uploads/${id}/preview`)
      .send({ file, reading: { material: 'nodes', sheet: 'Nodes' } })
      .expect(200);
    const { reading } = nodes as { reading: object };
    const { body } = await app
      .step('import-network', {
        upload: id,
        file,
        name: 'Quay',
        reading: preview.reading,
        nodes: { upload: id, file, reading },
      })
      .expect(200);
    expect((body as Step).result).toMatchObject({ nodes: 5, edges: 3, skipped: 1 });
  });

  it('are added to a network that is there; names that fit no node are listed', async () => {
    const made = await app.take('ties.csv', TIES);
    const network = String(made.result?.['network']);
    const { id, preview } = await app.look('more nodes.csv', 'id,town\n@A,Quay\nb,Marsh\nnobody,Quay\n');
    const add = (reading: object) =>
      app.step('add-node-details', { network, upload: id, file: 'more nodes.csv', reading });
    const columns = [
      { name: 'id', role: 'node' },
      { name: 'degree', role: 'attribute' },
    ];
    const refused = await add({ ...preview.reading, columns }).expect(422);
    expect((refused.body as { detail: string }).detail).toContain('a column “degree” of the network');
    const { body } = await add(preview.reading).expect(200);
    expect((body as Step).result).toMatchObject({ nodes: 2, columns: ['town'], skipped: 1 });
    expect((body as Step).sentence).toBe('2 nodes were given details (town) from more nodes.csv.');
    expect(await columnsOf(network)).toContain('town text');
  });
});

interface AccountPage {
  accounts: {
    handle: string;
    followersHere: number;
    messages: number;
    profile: { numbers: Record<string, unknown>; description: string | null; joined: number | null };
  }[];
}
