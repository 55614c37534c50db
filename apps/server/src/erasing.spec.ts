import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { connect, studyFolder } from './storage/open';
import {
  KEPT_DAYS,
  type AccountPage,
  type Deleted,
  type MessagePage,
  type Network,
  type Step,
  type StudyList,
} from '@pebble/contract';
import { startedApplication } from './testing/application';

/** Every file of a folder in which some bytes stand, by their names. */
function filesWith(folder: string, text: string): string[] {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map(({ parentPath, name }) => join(parentPath, name))
    .filter((path) => {
      const bytes = readFileSync(path);
      return bytes.includes(text) || bytes.toString('latin1').toLowerCase().includes(text.toLowerCase());
    });
}

describe('what is deleted for good', () => {
  const app = startedApplication();
  const list = async (): Promise<StudyList> =>
    (await app.api.get('/api/v1/studies').expect(200)).body as StudyList;
  const weave = async (things: object): Promise<string> => {
    const step = (await app.step('weave', { name: 'A', weave: things }).expect(200)).body as Step;
    return String(step.result?.['network']);
  };
  const ACCOUNTS = { what: 'accounts', kinds: ['reply', 'mention', 'repost'] };
  const measured = async (id: string): Promise<void> => {
    for (let state = ''; state !== 'measured'; await new Promise((done) => setTimeout(done, 40)))
      ({ state } = (await app.api.get(`/api/v1/studies/${app.study}/networks/${id}`)).body as Network);
  };
  const rows = Array.from(
    { length: 400 },
    (_, i) => `k${i},ann${i % 40},"quokkaword${i % 7} @bob${i % 9} #tag${i % 5}",2026-03-0${1 + (i % 9)}`,
  );

  it('leaves nothing of a source that was taken out, in any byte of the study', async () => {
    await app.take('keep.csv', `id,author,text,date\n${rows.join('\n')}\n`);
    const step = await app.take(
      'out.csv',
      'id,author,text\nz1,zebulon_q,"wombatword @numbat_q #dingotag"\nz2,,x\n',
    );
    const source = Number(step.result?.['source']);
    await app.step('remove-for-good', { sources: [source] }).expect(422);
    await app.step('remove-source', { source, name: 'out.csv' }).expect(200);
    const deleted = await app.get<Deleted[]>('deleted');
    expect(deleted.map(({ what, id }) => [what, id])).toEqual([['source', source]]);
    expect(Date.parse(deleted[0].goneAt) - Date.parse(deleted[0].deletedAt)).toBe(KEPT_DAYS * 86_400_000);
    expect(filesWith(app.studyFolder, 'wombatword')).not.toEqual([]);
    const gone = (await app.step('remove-for-good', { sources: [source] }).expect(200)).body as Step;
    expect(gone.sentence).toBe('1 source that was taken out with 1 message was removed for good.');
    await app.stop();
    for (const word of ['wombatword', 'zebulon_q', 'numbat_q', 'dingotag'])
      expect([word, filesWith(app.studyFolder, word)]).toEqual([word, []]);
    await app.begin();
    await app.step('restore-source', { source, name: 'out.csv' }).expect(404);
    expect(await app.get('messages', { text: 'quokkaword1' })).toMatchObject({ total: 57 });
  }, 60_000);

  it('takes the files of a deleted network with it', async () => {
    const network = await weave(ACCOUNTS);
    await measured(network);
    await app.step('remove-for-good', { networks: [network] }).expect(422);
    await app.step('delete-network', { network }).expect(200);
    const folder = join(app.studyFolder, 'networks', network);
    expect(existsSync(folder)).toBe(true);
    await app.step('remove-for-good', { networks: [network] }).expect(200);
    expect(existsSync(folder)).toBe(false);
    await app.step('restore-network', { network }).expect(404);
    expect(await app.get('deleted')).toEqual([]);
  }, 60_000);

  it('goes by itself after the days that are said, at the next start', async () => {
    const network = await weave(ACCOUNTS);
    await app.step('delete-network', { network }).expect(200);
    const { body } = await app.api.post('/api/v1/studies').send({ name: 'Old' }).expect(201);
    const old = (body as { id: string }).id;
    await app.api.delete(`/api/v1/studies/${old}`).expect(204);
    await app.stop();
    const long = new Date(Date.now() - (KEPT_DAYS * 24 + 1) * 3_600_000).toISOString();
    const store = connect(app.studyFolder);
    store.raw.prepare('update network set deleted_at = ? where id = ?').run(long, network);
    await store.close();
    const other = connect(studyFolder(app.folder, old));
    other.raw.prepare('update study set deleted_at = ?').run(long);
    await other.close();
    await app.begin();
    for (let i = 0; i < 100 && existsSync(join(app.studyFolder, 'networks', network)); i++)
      await new Promise((done) => setTimeout(done, 50));
    expect(existsSync(join(app.studyFolder, 'networks', network))).toBe(false);
    expect(existsSync(studyFolder(app.folder, old))).toBe(false);
    expect((await list()).deleted).toEqual([]);
  }, 60_000);

  it('is, at once, a study that was deleted, and no other', async () => {
    const { body } = await app.api.post('/api/v1/studies').send({ name: 'Short' }).expect(201);
    const { id } = body as { id: string };
    await app.api.delete(`/api/v1/studies/${id}/for-good`).expect(404);
    await app.api.delete(`/api/v1/studies/${id}`).expect(204);
    expect((await list()).deleted.map(({ name, goneAt }) => [name, goneAt !== null])).toEqual([
      ['Short', true],
    ]);
    await app.api.delete(`/api/v1/studies/${id}/for-good`).expect(204);
    expect((await list()).deleted).toEqual([]);
    expect(existsSync(studyFolder(app.folder, id))).toBe(false);
    await app.api.post(`/api/v1/studies/${id}/restore`).expect(404);
  });

  describe('a person who is forgotten', () => {
    const HANDLE = 'Quoll_Keeper77';

    it('is in no byte of the study any more, and everybody else is as before', async () => {
      const posts = [
        `p1,${HANDLE},"I keep quolls #quolltag and @ann1"`,
        `p2,ann1,"@${HANDLE} is right, says @bob2"`,
        `p3,ann2,"only @${HANDLE.toLowerCase()} knows"`,
        `p4,ann3,"see https://hub.example/@${HANDLE}/9"`,
        `p5,ann4,nothing of it`,
      ];
      await app.take('person.csv', `id,author,text\n${posts.join('\n')}\nq1,,${HANDLE} without author\n`);
      const tidied = [
        { key: HANDLE.toLowerCase(), verdict: { verdict: 'category', name: 'side', value: 'x' } },
      ];
      await app.step('tidy', { sort: 'account', decisions: tidied }).expect(200);
      await app.step('save-filter', { name: `Of ${HANDLE}`, filter: { author: HANDLE } }).expect(200);
      const network = await weave({ ...ACCOUNTS, isolates: true });
      await measured(network);
      await app.step('rename-network', { network, name: `Round ${HANDLE}` }).expect(200);
      await app.look('waits.csv', `id,author,text\n1,${HANDLE},waiting\n`);
      const find = async (search: string): Promise<AccountPage> => app.get('accounts', { search });
      const others = async (): Promise<MessagePage> =>
        app.get('messages', { text: 'quokkaword1', limit: 200 });
      const before = await others();
      const [{ id }] = (await find(HANDLE)).accounts;
      const step = (await app.step('forget-account', { account: id }).expect(200)).body as Step;
      expect(step.result).toMatchObject({ messages: 1, mentions: 3, networks: 1, stale: 1, uploads: 1 });
      expect(JSON.stringify(step)).not.toMatch(/quoll/i);
      expect((await find(HANDLE)).total).toBe(0);
      expect((await others()).messages).toEqual(before.messages);
      const { messages } = await app.get<MessagePage>('messages', { source: 3, limit: 10 });
      expect(messages.map(({ text }) => text)).toEqual([
        '@forgotten is right, says @bob2',
        'only @forgotten knows',
        'see https://hub.example/@forgotten/9',
        'nothing of it',
      ]);
      expect(await app.get('messages', { text: 'forgotten' })).toMatchObject({ total: 3 });
      const [now] = await app.list<Network>('networks');
      expect(now).toMatchObject({ name: 'Round forgotten', forgotten: 1 });
      await app.api.get(`/api/v1/studies/${app.study}/networks/${network}/evidence?node=0`).expect(200);
      const again = await weave({ ...ACCOUNTS, isolates: true });
      const table = await app.api
        .get(`/api/v1/studies/${app.study}/networks/${again}/export/csv-nodes`)
        .buffer();
      expect(table.text).not.toMatch(/quoll/i);
      await app.stop();
      for (const word of [HANDLE, 'quolltag', 'keep quolls'])
        expect([word, filesWith(app.studyFolder, word)]).toEqual([word, []]);
      await app.begin();
    }, 60_000);

    it('is not forgotten while a run has not ended, whose messages are not in the study yet', async () => {
      const store = connect(app.studyFolder);
      store.raw
        .exec(`insert into collect_run (id, name, service, plan, counts, notes, state, spool_bytes, ended_by_hand, created_at)
        values ('r', 'Slow', '{}', '{}', '{}', '[]', 'paused', 0, 0, '')`);
      const [{ id }] = (await app.get<AccountPage>('accounts')).accounts;
      const { body } = await app.step('forget-account', { account: id }).expect(422);
      expect((body as { detail: string }).detail).toContain('“Slow” has not ended');
      store.raw.exec('delete from collect_run');
      await store.close();
    });
  });
});
