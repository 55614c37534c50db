import { StepKind, type Codebook, type Step } from '@pebble/contract';
import { findStep } from './storage/steps';
import { connect, studyFolder } from './storage/open';
import { startedApplication } from './testing/application';
import { networkSteps, PLATE } from './testing/networkSteps';

/** What each kind of step names by an id; null for kinds that name nothing. */
interface Foreign {
  readonly network: string;
  readonly upload: string;
  readonly reading: object;
  readonly source: number;
  readonly message: number;
  readonly filter: number;
  readonly moment: number;
  readonly plate: number;
  readonly code: number;
  readonly sample: number;
  readonly account: number;
  readonly run: number;
}
const STEPS: Readonly<Record<StepKind, ((of: Foreign) => object) | null>> = {
  'create-study': null,
  'rename-study': null,
  'delete-study': null,
  'restore-study': null,
  'duplicate-study': null,
  'save-study': null,
  'archive-study': null,
  'open-study': ({ upload }) => ({ upload, file: 'a.zip' }),
  'open-package': ({ upload }) => ({ upload, file: 'a.zip' }),
  'import-source': ({ upload, reading }) => ({ upload, file: 'a.csv', name: 'a', reading }),
  'collect-source': null,
  'import-network': ({ upload, reading }) => ({ upload, file: 'a.csv', name: 'a', reading }),
  'add-node-details': ({ network, upload, reading }) => ({ network, upload, file: 'a', reading }),
  'add-groups': ({ network, upload, reading }) => ({ network, upload, file: 'a', column: 'a', reading }),
  'detect-languages': ({ source }) => ({ source }),
  'set-language': ({ message }) => ({ message, language: 'en' }),
  'mark-message': ({ message }) => ({ message, starred: true, note: '' }),
  'save-filter': null,
  'forget-filter': ({ filter }) => ({ id: filter, name: 'F' }),
  'edit-codebook': null,
  'import-codes': ({ upload }) => ({ upload, file: 'a.csv' }),
  'draw-sample': ({ network }) => ({ name: 'a', from: { what: 'network', network }, most: 5 }),
  'forget-sample': ({ sample }) => ({ sample, name: 'a' }),
  'code-message': ({ message }) => ({ message, coder: 'ann', codes: [] }),
  'measure-agreement': ({ sample }) => ({ sample, coders: ['ann', 'ben'] }),
  'share-of-code': ({ network, code }) => ({ network, code }),
  'mark-moment': null,
  'forget-moment': ({ moment }) => ({ id: moment, name: 'M' }),
  'remove-source': ({ source }) => ({ source, name: 'a' }),
  'restore-source': ({ source }) => ({ source, name: 'a' }),
  'find-names': null,
  'score-messages': null,
  tidy: null,
  'take-back-tidy': null,
  'categorise-by-rule': null,
  'categorise-by-table': ({ upload, reading }) => ({ sort: 'account', upload, file: 'a', reading }),
  weave: ({ network }) => ({ name: 'a', weave: { what: 'groups', network, column: 'community' } }),
  'weave-slices': ({ network }) => ({
    name: 'a',
    weave: { what: 'groups', network, column: 'community' },
    by: 'month',
  }),
  ...networkSteps(({ network }: Foreign) => network),
  'keep-plate': ({ network }) => ({ ...PLATE, network }),
  'name-plate': ({ plate }) => ({ plate, title: 'Second', note: '' }),
  'duplicate-plate': ({ plate }) => ({ plate, title: 'Second' }),
  'renew-plate': ({ plate }) => ({ plate, title: 'First' }),
  'order-plates': ({ plate }) => ({ plates: [plate] }),
  'choose-cover': ({ plate }) => ({ plate }),
  'delete-plate': ({ plate }) => ({ plate, title: 'First' }),
  'restore-plate': ({ plate }) => ({ plate, title: 'First' }),
  'name-people': null,
  'forget-pseudonyms': null,
  'keep-look': null,
  'forget-look': null,
  'add-pictures': ({ upload }) => ({ upload }),
  'remove-pictures': null,
  'remove-for-good': ({ network, source }) => ({ networks: [network], sources: [source] }),
  'forget-account': ({ account }) => ({ account }),
  'export-data': null,
  'export-run': ({ run }) => ({ routineRun: run, files: 1 }),
};

describe('what is of another study', () => {
  const app = startedApplication();
  let own: string;
  let other: string;
  let foreign: Foreign;
  let skipped: number;
  let deletedNetwork: string;
  beforeAll(async () => {
    other = app.study;
    const step = await app.take(
      'posts.csv',
      'id,author,text\n1,ann,@bob hello\n2,bob,@ann yes\n3,cem\n4,,text of nobody',
    );
    skipped = step.id;
    const weave = { what: 'accounts', kinds: ['mention'] };
    const woven = (await app.step('weave', { name: 'A', weave }).expect(200)).body as Step;
    const network = String(woven.result?.['network']);
    await app
      .step('arrange-map', { network, layout: {}, upload: null, iterations: null, moved: 0 })
      .expect(200);
    const kept = (await app.step('keep-plate', { ...PLATE, network }).expect(200)).body as Step;
    const { id: upload, preview } = await app.look('more.csv', 'id,author,text\n9,ann,@bob again');
    await app.step('save-filter', { name: 'F', filter: { text: 'hello' } }).expect(200);
    const [source] = await app.list<{ id: number }>('sources');
    const { messages } = await app.get<{ messages: { id: number; author: { id: number } }[] }>('messages');
    const [filter] = await app.get<{ id: number }[]>('filters');
    await app.step('mark-moment', { time: 0, name: 'M' }).expect(200);
    const codes = [{ name: 'c', colour: '#112233' }];
    await app.step('edit-codebook', { codes }).expect(200);
    const drawn = await app.step('draw-sample', { name: 'S', from: { what: 'filter', filter: {} }, most: 2 });
    const book = await app.get<Codebook>('codebook');
    const [moment] = await app.get<{ id: number }[]>('moments');
    const routine = {
      form: 1,
      name: 'R',
      steps: [{ name: 'a', kind: 'find-names', parameters: { by: 'library' } }],
    };
    const run = await app.api.post(`/api/v1/studies/${app.study}/routine-runs`).send({ routine }).expect(202);
    foreign = {
      network,
      plate: Number(kept.result?.['plate']),
      upload,
      reading: preview.reading,
      source: source.id,
      message: messages[0].id,
      filter: filter.id,
      moment: moment.id,
      code: book.codes[0].id,
      sample: Number((drawn.body as Step).result?.['sample']),
      account: messages[0].author.id,
      run: (run.body as { id: number }).id,
    };
    const second = (await app.step('weave', { name: 'B', weave }).expect(200)).body as Step;
    deletedNetwork = String(second.result?.['network']);
    await app.step('delete-network', { network: deletedNetwork }).expect(200);
    const { body } = await app.api.post('/api/v1/studies').send({ name: 'Own' }).expect(201);
    own = (body as { id: string }).id;
  }, 120_000);

  const steps = async (study: string): Promise<number> =>
    ((await app.api.get(`/api/v1/studies/${study}/logbook`).expect(200)).body as { steps: Step[] }).steps
      .length;
  const named = StepKind.options.filter((kind) => STEPS[kind] !== null);

  it.each(named)('is not reached by a step: %s', async (kind) => {
    const before = await steps(own);
    const parameters = STEPS[kind]!(foreign);
    const answer = await app.api.post(`/api/v1/studies/${own}/steps`).send({ kind, parameters });
    expect([answer.status, (answer.body as { detail: string }).detail]).toEqual([
      404,
      expect.stringMatching(/^This .* is not there/),
    ]);
    expect(await steps(own)).toBe(before);
  });

  it('is not reached by a question', async () => {
    const at = `/api/v1/studies/${own}`;
    await app.api
      .post(`${at}/estimate`)
      .send({ what: 'groups', network: foreign.network, column: 'community' })
      .expect(404);
    await app.api
      .post(`${at}/uploads/${foreign.upload}/preview`)
      .send({ file: 'a', reading: {} })
      .expect(404);
    await app.api.delete(`${at}/uploads/${foreign.upload}`).expect(404);
    await app.api.get(`${at}/skipped/${skipped}`).expect(404);
    await app.api.get(`${at}/reports/${skipped}`).expect(404);
    await app.api.get(`${at}/messages/${foreign.message}/thread`).expect(404);
    await app.api.post(`${at}/steps/${skipped}/cancel`).expect(404);
    for (const part of ['', '/outputs', '/leaks', '/differences'])
      await app.api.get(`${at}/routine-runs/${foreign.run}${part}`).expect(404);
    await app.api.post(`${at}/routine-runs/${foreign.run}/verify`).send({}).expect(404);
    // In its own study it is there.
    await app.api.get(`/api/v1/studies/${other}/skipped/${skipped}`).expect(200);
  });

  it('is not renamed or measured once it is deleted, but can be taken back', async () => {
    for (const kind of ['rename-network', 'delete-network', 'group-nodes'] as const)
      await app.step(kind, STEPS[kind]!({ ...foreign, network: deletedNetwork })).expect(404);
    await app.step('restore-network', { network: deletedNetwork }).expect(200);
  });

  it('is not answered once its study is deleted', async () => {
    await app.api.delete(`/api/v1/studies/${other}`).expect(204);
    for (const path of ['messages', 'logbook', 'networks', 'events', `skipped/${skipped}`])
      await app.api.get(`/api/v1/studies/${other}/${path}`).expect(404);
    await app.api.get(`/api/v1/studies/${app.study}/networks/${foreign.network}`).expect(404);
    await app.step('rename-network', { network: foreign.network, name: 'x' }).expect(404);
    const store = connect(studyFolder(app.folder, other));
    expect((await findStep(store, skipped))?.study).toBe(other);
    await store.close();
  });
});
