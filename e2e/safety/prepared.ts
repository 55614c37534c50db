import { defaultMap, type Decision, type Step, type StepKind, type UploadAnswer } from '@pebble/contract';
import { lookOf } from '@pebble/core';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { PLATE } from '../../apps/server/src/testing/networkSteps';
import { idle, type Served } from './served';

/** What a prepared study holds, by the ids that steps name. */
export interface Prepared {
  readonly study: string;
  readonly network: string;
  readonly deletedNetwork: string;
  readonly slicedNetwork: string;
  readonly source: number;
  readonly removedSource: number;
  readonly message: number;
  readonly account: number;
  readonly filter: number;
  readonly moment: number;
  readonly plate: number;
  readonly deletedPlate: number;
  readonly code: number;
  readonly sample: number;
  readonly decisions: readonly number[];
  readonly sent: Readonly<Record<'posts' | 'ties' | 'details' | 'groups' | 'table' | 'codes', Sent>>;
  readonly pictures: string;
  readonly routineRun: number;
}

interface Sent {
  readonly upload: string;
  readonly file: string;
  readonly reading: object;
}

/** A weave of who addresses whom. */
export const ADDRESSES = { what: 'accounts', kinds: ['reply', 'mention', 'repost'] };
const PIXEL =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';

/** Posts of the study, and of the file that is taken in beside them. */
const POSTS = 1500;
const MORE = 700;

/** Makes a study that holds something for every kind of step. */
export async function prepare(app: Served): Promise<Prepared> {
  const { id: study } = await app.succeed<{ id: string }>('POST', '/studies', { name: 'Prepared' });
  const at = `/studies/${study}`;
  const step = async (kind: StepKind, parameters: object): Promise<Step> => {
    const done = await app.succeed<Step>('POST', `${at}/steps`, { kind, parameters });
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
  const network = String((await step('weave', { name: 'Network', weave: ADDRESSES })).result!['network']);
  const deletedNetwork = String(
    (await step('weave', { name: 'Deleted', weave: ADDRESSES })).result!['network'],
  );
  await step('delete-network', { network: deletedNetwork });
  const sliced = await step('weave-slices', { name: 'Slices', weave: ADDRESSES, by: 'week' });
  const slicedNetwork = String(sliced.result!['network']);
  await step('arrange-map', { network: slicedNetwork, layout: {}, upload: null, iterations: null, moved: 0 });
  await step('save-filter', { name: 'Lamps', filter: { text: 'lamps' } });
  await step('edit-codebook', { codes: [{ name: 'ask', colour: '#0072B2' }] });
  const { codes } = await app.succeed<{ codes: { id: number }[] }>('GET', `${at}/codebook`);
  const drawn = await step('draw-sample', { name: 'Sample', from: { what: 'filter', filter: {} }, most: 20 });
  const sample = Number(drawn.result!['sample']);
  const { entries } = await app.succeed<{ entries: { message: { id: number } }[] }>(
    'GET',
    `${at}/samples/${sample}/queue?coder=ann`,
  );
  for (const coder of ['ann', 'ben'])
    await step('code-message', { message: entries[0].message.id, coder, codes: [codes[0].id] });
  await step('mark-moment', { time: 0, name: 'Fire' });
  const plateOf = async (title: string): Promise<number> =>
    Number((await step('keep-plate', { ...PLATE, title, network: slicedNetwork })).result!['plate']);
  const [plate, deletedPlate] = [await plateOf('First'), await plateOf('Deleted')];
  await step('delete-plate', { plate: deletedPlate, title: 'Deleted' });
  // They have pseudonyms, and are called as they are again: tables that are made of exports have handles.
  await step('name-people', { form: 'numbers' });
  await step('name-people', { form: 'as they are' });
  await step('keep-look', { name: 'Kept', look: lookOf(defaultMap) });
  const tidied = await step('tidy', {
    sort: 'hashtag',
    decisions: [{ key: 'council', verdict: { verdict: 'drop' } }],
  });
  const picture = async (name: string): Promise<string> =>
    (await app.succeed<{ id: string }>('POST', `${at}/bytes`, JSON.stringify([{ name, image: PIXEL }]))).id;
  await step('add-pictures', { upload: await picture('ann') });
  const { messages } = await app.succeed<{ messages: { id: number; author: { id: number } }[] }>(
    'GET',
    `${at}/messages`,
  );
  const [moment] = await app.succeed<{ id: number }[]>('GET', `${at}/moments`);
  const [filter] = await app.succeed<{ id: number }[]>('GET', `${at}/filters`);
  const [head, ...lines] = (await app.succeed<string>('GET', `${at}/networks/${network}/export/csv-nodes`))
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
  const begun = {
    name: 'Names',
    steps: [{ name: 'names', kind: 'find-names', parameters: { by: 'library' } }],
  };
  const { id: routineRun } = await app.succeed<{ id: number }>('POST', `${at}/routine-runs`, {
    routine: { form: 1, ...begun },
  });
  await idle(app, study);
  return {
    study,
    routineRun,
    network,
    deletedNetwork,
    slicedNetwork,
    source: Number(first.result!['source']),
    removedSource: Number(removed.result!['source']),
    message: messages[0].id,
    account: messages[0].author.id,
    filter: filter.id,
    moment: moment.id,
    plate,
    deletedPlate,
    code: codes[0].id,
    sample,
    decisions: (tidied.result!['decisions'] as Decision['id'][]).map(Number),
    sent: {
      posts: await look('more.jsonl', postsAsJsonLines(posts.slice(POSTS))),
      codes: await look('codes.csv', 'name,set,definition\nblame,acts,Somebody is at fault\njoke,,\n'),
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

/** What people read who look at a study. */
export const pages = ({ study, network }: Prepared): readonly string[] => [
  `/studies/${study}/messages`,
  `/studies/${study}/messages?text=lamps`,
  `/studies/${study}/timeline`,
  `/studies/${study}/overview`,
  `/studies/${study}/accounts`,
  `/studies/${study}/logbook`,
  `/studies/${study}/networks`,
  `/studies/${study}`,
  `/studies/${study}/networks/${network}`,
  `/studies/${study}/networks/${network}/nodes.arrow`,
  `/studies/${study}/networks/${network}/evidence?node=0`,
  '/studies',
];
