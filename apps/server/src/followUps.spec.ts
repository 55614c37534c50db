import type { Step } from '@pebble/contract';
import { connect } from './storage/open';
import { startedApplication } from './testing/application';

describe('what follows a step by itself', () => {
  const app = startedApplication();
  let source: number;

  const logbook = async (): Promise<Step[]> => (await app.get<{ steps: Step[] }>('logbook')).steps;
  /** Works on the database while the application is not running, as if it had been killed then. */
  const whileItIsDown = async (
    work: (store: ReturnType<typeof connect>) => Promise<unknown>,
  ): Promise<void> => {
    await app.stop();
    const store = connect(app.studyFolder);
    await work(store);
    await store.close();
    await app.begin();
  };
  const kept = async (): Promise<number> => {
    const store = connect(app.studyFolder);
    const rows = await store.query.selectFrom('follow_up').selectAll().execute();
    await store.close();
    return rows.length;
  };
  const row = (beginnings: number) => ({
    kind: 'detect-languages',
    parameters: JSON.stringify({ source }),
    beginnings,
  });
  const until = async (isSo: () => Promise<boolean>): Promise<void> => {
    for (let i = 0; i < 200 && !(await isSo()); i++) await new Promise((done) => setTimeout(done, 50));
    expect(await isSo()).toBe(true);
  };

  it('is kept from the end of the step to its own end', async () => {
    const taken = await app.take(
      'posts.csv',
      'id,author,text\n1,ann,the lamps on the wall are dimmer tonight\n',
    );
    source = Number(taken.result!['source']);
    await until(
      async () => (await logbook())[0].kind === 'detect-languages' && (await logbook())[0].state === 'done',
    );
    expect(await kept()).toBe(0);
  });

  it('follows at the next start where the application was ended before it', async () => {
    const before = (await logbook()).length;
    await whileItIsDown((store) => store.query.insertInto('follow_up').values(row(1)).execute());
    await until(async () => (await logbook()).length === before + 1 && (await logbook())[0].state === 'done');
    expect(await kept()).toBe(0);
  });

  it('is left where the application ended each time that it was begun', async () => {
    const before = (await logbook()).length;
    await whileItIsDown((store) => store.query.insertInto('follow_up').values(row(3)).execute());
    expect(await kept()).toBe(0);
    expect((await logbook()).length).toBe(before);
  });

  it('is left where it cannot be done any more, with its reason', async () => {
    await whileItIsDown((store) =>
      store.query
        .insertInto('follow_up')
        .values({ ...row(0), kind: 'measure-network', parameters: '{"network":"gone","settings":{}}' })
        .execute(),
    );
    await until(async () => (await logbook())[0].kind === 'measure-network');
    await until(async () => (await logbook())[0].state === 'failed');
    expect(await kept()).toBe(0);
  });

  it('that is running when the application is closed is interrupted, not cancelled, and follows again', async () => {
    const rows = Array.from(
      { length: 20_000 },
      (_, i) => `x${i},ann${i % 9},the lamps are dim tonight number ${i}`,
    );
    await app.take('many.csv', `id,author,text\n${rows.join('\n')}\n`);
    await until(async () => (await logbook())[0].kind === 'detect-languages');
    await whileItIsDown(() => Promise.resolve());
    await until(async () => (await logbook())[0].state === 'done');
    const [last, before] = await logbook();
    expect(last.kind).toBe('detect-languages');
    expect(['interrupted', 'done']).toContain(before.state);
    expect(await kept()).toBe(0);
  });
});
