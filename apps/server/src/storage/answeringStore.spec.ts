import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { AnsweringStore } from './answeringStore';
import { connect, prepareStudy } from './open';

describe('the connection that answers for a study', () => {
  let folder: string;
  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), 'pebble-answers-'));
    await prepareStudy(folder);
  });
  afterEach(() => rmSync(folder, { recursive: true }));

  it('is let go once nobody has used it for a while, and opened again when it is needed', async () => {
    const store = new AnsweringStore(folder);
    const first = store.raw;
    await store.letGo(60_000);
    expect(first.open).toBe(true);
    await store.letGo(60_000, performance.now() + 60_001);
    expect(first.open).toBe(false);
    expect(await store.query.selectFrom('step').selectAll().execute()).toEqual([]);
    await store.close();
  });

  it('is ended only when what was asked has its answer, and not opened again', async () => {
    const store = new AnsweringStore(folder);
    const step = connect(folder);
    step.raw.exec('begin immediate');
    const values = { name: 'S', created_at: '', changed_at: '', deleted_at: null, archived_at: null };
    const waiting = store.query.insertInto('study').values(values).execute();
    await new Promise((done) => setTimeout(done, 60));
    const ended = store.end();
    setTimeout(() => step.raw.exec('commit'), 60);
    await Promise.all([waiting, ended]);
    expect(() => store.raw).toThrow('not there any more');
    await step.close();
  });

  it('is kept while something waits for a step that writes', async () => {
    const store = new AnsweringStore(folder);
    const step = connect(folder);
    step.raw.exec('begin immediate');
    const waiting = store.query
      .insertInto('study')
      .values({ name: 'S', created_at: '', changed_at: '', deleted_at: null, archived_at: null })
      .execute();
    await new Promise((done) => setTimeout(done, 60));
    expect(store.isAsked()).toBe(true);
    await store.letGo(0);
    step.raw.exec('commit');
    await waiting;
    expect(store.isAsked()).toBe(false);
    await store.letGo(0);
    expect((await store.query.selectFrom('study').select('name').execute()).length).toBe(1);
    await store.close();
    await step.close();
  });
});
