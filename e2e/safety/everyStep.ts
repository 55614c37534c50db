import { defaultMap, type Decision, type Step, type StepKind, type UploadAnswer } from '@pebble/contract';
import { lookOf } from '@pebble/core';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { pause, type Served } from './served';

/** What a prepared study holds, by the ids that steps name. */
export interface Prepared {
  readonly study: string;
  readonly network: string;
  readonly deletedNetwork: string;
  readonly slicedNetwork: string;
  readonly source: number;
  readonly removedSource: number;
  readonly message: number;
  readonly filter: number;
  readonly decisions: readonly number[];
  readonly sent: Readonly<Record<'posts' | 'ties' | 'details' | 'groups' | 'table', Sent>>;
  readonly pictures: string;
}

interface Sent {
  readonly upload: string;
  readonly file: string;
  readonly reading: object;
}

const WEAVE = { what: 'accounts', kinds: ['reply', 'mention', 'repost'] };
const PIXEL =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';

/** Parameters for every kind of step on a prepared study; collecting is killed by itself. */
export const PARAMETERS: Readonly<
  Record<
    Exclude<StepKind, 'collect-source' | 'create-study' | 'rename-study' | 'delete-study' | 'restore-study'>,
    (of: Prepared) => object
  >
> = {
  'import-source': ({ sent }) => ({ ...sent.posts, name: 'More posts' }),
  'import-network': ({ sent }) => ({ ...sent.ties, name: 'Ties' }),
  'add-node-details': ({ network, sent }) => ({ ...sent.details, network }),
  'add-groups': ({ network, sent }) => ({ ...sent.groups, network, column: 'office' }),
  'detect-languages': ({ source }) => ({ source }),
  'set-language': ({ message }) => ({ message, language: 'fr' }),
  'mark-message': ({ message }) => ({ message, starred: true, note: 'odd' }),
  'save-filter': () => ({ name: 'Quay', filter: { text: 'quay' } }),
  'forget-filter': ({ filter }) => ({ id: filter, name: 'Lamps' }),
  'remove-source': ({ source }) => ({ source, name: 'Posts' }),
  'restore-source': ({ removedSource }) => ({ source: removedSource, name: 'Removed' }),
  'find-names': () => ({ by: 'library' }),
  'score-messages': () => ({ scorer: 'tone' }),
  tidy: () => ({
    sort: 'hashtag',
    decisions: [{ key: 'sallowmere', verdict: { verdict: 'drop' } }],
  }),
  'take-back-tidy': ({ decisions }) => ({ decisions }),
  'categorise-by-rule': () => ({
    sort: 'account',
    field: 'label',
    contains: 'a',
    category: 'letter',
    value: 'a',
  }),
  'categorise-by-table': ({ sent }) => ({ ...sent.table, sort: 'account' }),
  weave: () => ({ name: 'Woven', weave: WEAVE }),
  'weave-slices': () => ({ name: 'Sliced', weave: WEAVE, by: 'week' }),
  'share-arrangement': ({ slicedNetwork }) => ({ network: slicedNetwork }),
  'measure-network': ({ network }) => ({ network, settings: { seed: 5 } }),
  'measure-betweenness': ({ network }) => ({ network, seed: 1 }),
  'answer-questions': ({ network }) => ({ network, questions: ['basics', 'core'], settings: {} }),
  'describe-whole': ({ network }) => ({ network, networks: 10 }),
  'group-nodes': ({ network }) => ({ network, name: 'More groups', settings: { method: 'leiden' } }),
  regroup: ({ network }) => ({ network, column: 'community', name: 'Renamed', rename: { '1': 'One' } }),
  'split-group': ({ network }) => ({
    network,
    column: 'community',
    group: '1',
    name: 'Split',
    settings: { method: 'louvain' },
  }),
  'scan-resolutions': ({ network }) => ({ network, settings: { method: 'louvain' } }),
  'test-removal': ({ network }) => ({ network, nodes: [0, 1, 2] }),
  'doubt-ranks': ({ network }) => ({ network, measure: 'inDegree', runs: 20 }),
  'compute-column': ({ network }) => ({ network, name: 'twice', formula: '2 * inDegree' }),
  'mark-nodes': ({ network }) => ({ network, nodes: [0, 1], column: 'hand', value: 'chosen' }),
  'change-network': ({ network }) => ({
    network,
    name: 'Changed',
    changes: [{ what: 'without-nodes', nodes: [0] }],
  }),
  'rename-network': ({ network }) => ({ network, name: 'Renamed' }),
  'delete-network': ({ network }) => ({ network }),
  'restore-network': ({ deletedNetwork }) => ({ network: deletedNetwork }),
  'arrange-map': ({ network }) => ({ network, layout: {}, upload: null, iterations: null, moved: 0 }),
  'keep-look': () => ({ name: 'Journal', look: lookOf(defaultMap) }),
  'forget-look': () => ({ name: 'Kept' }),
  'add-pictures': ({ pictures }) => ({ upload: pictures }),
  'remove-pictures': () => ({}),
  'describe-map': ({ network }) => ({ network, description: defaultMap }),
  'export-figure': ({ network }) => ({
    network,
    format: 'svg',
    width: 100,
    height: 100,
    resolution: 72,
    caption: '',
  }),
  'export-network': ({ network }) => ({ network, format: 'graphml' }),
  'export-data': () => ({ what: 'decisions', format: 'csv', filter: {} }),
};

/** Posts of the study, and of the file that is taken in beside them. */
const POSTS = 1500;
const MORE = 700;

/** Makes a study that holds something for every kind of step. */
export async function prepare(app: Served): Promise<Prepared> {
  const { id: study } = await app.get<{ id: string }>('POST', '/studies', { name: 'Prepared' });
  const at = `/studies/${study}`;
  const step = async (kind: StepKind, parameters: object): Promise<Step> => {
    const done = await app.get<Step>('POST', `${at}/steps`, { kind, parameters });
    if (done.state !== 'done') throw new Error(`${kind}: ${done.error}`);
    return done;
  };
  const look = async (file: string, text: string, changed: object = {}): Promise<Sent> => {
    const { body } = await app.send<UploadAnswer>(study, file, text);
    const [{ id, preview }] = body.uploads;
    return { upload: id, file, reading: { ...preview.reading, ...changed } };
  };
  const { posts } = makePosts(POSTS + MORE + 1);
  const first = await step('import-source', {
    ...(await look('posts.jsonl', postsAsJsonLines(posts.slice(0, POSTS)))),
    name: 'Posts',
  });
  const removed = await step('import-source', {
    ...(await look('one.csv', 'id,author,text\nextra,zoe,hello')),
    name: 'Removed',
  });
  await step('remove-source', { source: removed.result!['source'], name: 'Removed' });
  const network = String((await step('weave', { name: 'Network', weave: WEAVE })).result!['network']);
  const deletedNetwork = String((await step('weave', { name: 'Deleted', weave: WEAVE })).result!['network']);
  await step('delete-network', { network: deletedNetwork });
  const sliced = await step('weave-slices', { name: 'Slices', weave: WEAVE, by: 'week' });
  const slicedNetwork = String(sliced.result!['network']);
  await step('arrange-map', { network: slicedNetwork, layout: {}, upload: null, iterations: null, moved: 0 });
  await step('save-filter', { name: 'Lamps', filter: { text: 'lamps' } });
  await step('keep-look', { name: 'Kept', look: lookOf(defaultMap) });
  const tidied = await step('tidy', {
    sort: 'hashtag',
    decisions: [{ key: 'council', verdict: { verdict: 'drop' } }],
  });
  const picture = async (name: string): Promise<string> =>
    (await app.get<{ id: string }>('POST', `${at}/uploads`, JSON.stringify([{ name, image: PIXEL }]))).id;
  await step('add-pictures', { upload: await picture('ann') });
  const { messages } = await app.get<{ messages: { id: number }[] }>('GET', `${at}/messages`);
  const [filter] = await app.get<{ id: number }[]>('GET', `${at}/filters`);
  const [head, ...lines] = (await app.get<string>('GET', `/networks/${network}/export/csv-nodes`))
    .trim()
    .split('\r\n');
  const place = head.replace('\ufeff', '').split(',').indexOf('handle');
  const handles = lines.map((line) => line.split(',')[place]);
  const rows = (value: (i: number) => string): string =>
    handles.map((handle, i) => `${handle},${value(i)}`).join('\n');
  const roles = (...names: string[]): object => ({
    material: 'nodes',
    columns: names.map((name, i) => ({ name, role: i === 0 ? 'node' : 'attribute' })),
  });
  await idle(app, study);
  return {
    study,
    network,
    deletedNetwork,
    slicedNetwork,
    source: Number(first.result!['source']),
    removedSource: Number(removed.result!['source']),
    message: messages[0].id,
    filter: filter.id,
    decisions: (tidied.result!['decisions'] as Decision['id'][]).map(Number),
    sent: {
      posts: await look('more.jsonl', postsAsJsonLines(posts.slice(POSTS))),
      ties: await look(
        'ties.csv',
        `source,target,weight\n${Array.from({ length: 3000 }, (_, i) => `n${i % 170},n${(i * 7) % 190},${1 + (i % 5)}`).join('\n')}`,
      ),
      details: await look(
        'towns.csv',
        `account,town\n${rows((i) => `town ${i % 4}`)}`,
        roles('account', 'town'),
      ),
      groups: await look('offices.csv', `node,group\n${rows((i) => `office ${i % 3}`)}`),
      table: await look(
        'sides.csv',
        `account,side\n${rows((i) => (i % 2 ? 'for' : 'against'))}`,
        roles('account', 'side'),
      ),
    },
    pictures: await picture('ben'),
  };
}

/** Waits until no step of a study runs and none follows. */
export async function idle(app: Served, study: string): Promise<readonly Step[]> {
  for (let quiet = 0, before = -1; ;) {
    const { steps } = await app.get<{ steps: Step[] }>('GET', `/studies/${study}/logbook`);
    const isQuiet =
      steps.length === before && steps.every(({ state }) => state !== 'running' && state !== 'waiting');
    quiet = isQuiet ? quiet + 1 : 0;
    if (quiet === 5) return steps;
    before = steps.length;
    await pause(40);
  }
}
