import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { appendFileSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CollectPlan, CollectRun, RunState, Step } from '@pebble/contract';
import type { GateSettings } from '@pebble/standins';
import { findRun, listRuns } from '../storage/collectRuns';
import { connect, type Store } from '../storage/open';
import { StudyFolders } from '../storage/studyFolders';
import { listSteps } from '../storage/steps';
import { STEP_NEEDS_ROOM } from '../files/diskFull';
import { Runner } from '../runner/runner';
import { startStandins, type RunningStandins } from '../standins';
import { buildThreads, workerFile } from '../testing/application';
import { Collector } from './collector';
import { Secrets } from './secrets';
import { Spool } from './spool';

const STUDY = 'abcdef0123';
const QUICK: Partial<GateSettings> = { requests: 1000, windowSeconds: 1, tokenRequests: 1000, faultEvery: 0 };
const SEARCH: CollectPlan = {
  what: 'search',
  query: '#LateLampPlan',
  language: '',
  from: null,
  until: null,
  most: 120,
};

let folder: string;
let studies: StudyFolders;
let store: Store;
let runner: Runner;
let standins: RunningStandins;
let collector: Collector;

beforeAll(() => buildThreads(), 60_000);

async function begin(settings: Partial<GateSettings> = {}): Promise<void> {
  folder = mkdtempSync(join(tmpdir(), 'pebble-collect-'));
  studies = await StudyFolders.open(folder);
  runner = new Runner(studies, workerFile, {
    mostRows: 50_000,
    longestLook: 10_000,
  });
  standins = await startStandins(0, { ...QUICK, ...settings });
  collector = new Collector(studies, runner, standins.services, 5);
  await runner.submit(STUDY, { kind: 'create-study', parameters: { name: 'Collected' } });
  store = studies.storeOf(STUDY)!;
}

afterEach(async () => {
  await collector.close();
  await runner.close();
  await studies.close();
  await standins.close();
  rmSync(folder, { recursive: true, force: true });
});

const accessTo = (kind: 'hub' | 'mail') => {
  const { service } = standins.services.find((one) => one.service.kind === kind)!;
  return { service, clientId: '', secret: '' };
};
const start = (plan: CollectPlan, name = 'A run'): Promise<CollectRun> =>
  collector.begin(STUDY, { name, access: accessTo(plan.what === 'mail' ? 'mail' : 'hub'), plan });

async function until(id: string, ...states: RunState[]): Promise<CollectRun> {
  for (let i = 0; i < 2400; i++) {
    const run = (await findRun(store, id))!;
    if (states.includes(run.state)) return run;
    if (['failed', 'paused', 'done', 'cancelled'].includes(run.state))
      throw new Error(`It is ${run.state}: ${run.error}`);
    await new Promise((done) => setTimeout(done, 20));
  }
  throw new Error('It takes too long.');
}
const finished = async (plan: CollectPlan): Promise<CollectRun> => until((await start(plan)).id, 'done');
const countOf = async (table: 'message' | 'item' | 'follow' | 'profile'): Promise<number> => {
  const row = await store.query
    .selectFrom(table)
    .select((e) => e.fn.countAll<number>().as('n'))
    .executeTakeFirstOrThrow();
  return row.n;
};

describe('a collecting run', () => {
  it('brings what was searched for, once each, and says why it is less', async () => {
    await begin();
    const run = await finished({ ...SEARCH, most: 5000 });
    const { messages, deleted, repeated } = run.counts;
    expect(messages + deleted).toBeLessThanOrEqual(400);
    expect(repeated).toBeGreaterThan(0);
    expect(await countOf('message')).toBe(messages);
    expect(run.notes.join(' ')).toContain(`5,000 messages were asked for and ${messages} came`);
    expect(run.notes.join(' ')).toContain('came twice, since pages moved');
    expect(run.notes.join(' ')).toContain('had been deleted');
    const [step] = (await listSteps(store)).filter(({ kind }) => kind === 'collect-source');
    expect(step.sentence).toContain('the search for “#LateLampPlan”, at most 5,000 messages');
  });

  it('pauses when the disk is full, and goes on by itself, with nothing lost and nothing doubled', async () => {
    await begin();
    collector = new Collector(studies, runner, standins.services, 5, 50);
    const full = Object.assign(new Error('no space'), { code: 'ENOSPC' });
    let calls = 0;

    const add = Spool.prototype.add;
    jest.spyOn(Spool.prototype, 'add').mockImplementation(function (this: Spool, records) {
      return ++calls === 2 ? Promise.reject(full) : add.call(this, records);
    });
    const seen: (string | null)[] = [];
    const stop = runner.listen(STUDY, (event) => {
      if (event.type === 'collecting') seen.push(event.run.state === 'paused' ? event.run.error : null);
    });
    const { id } = await start(SEARCH);
    let run = (await findRun(store, id))!;
    for (let i = 0; i < 500 && run.state !== 'done'; i++) {
      await new Promise((done) => setTimeout(done, 20));
      run = (await findRun(store, id))!;
    }
    stop();
    jest.restoreAllMocks();
    expect(run.state).toBe('done');
    expect(seen.join(' ')).toContain('The disk is full');
    expect(await countOf('message')).toBe(run.counts.messages);
  });

  it('waits while a step writes for long, and blocks nothing', async () => {
    await begin();
    const step = connect(store.folder);
    step.raw.exec('BEGIN IMMEDIATE');
    let beats = 0;
    const heart = setInterval(() => beats++, 20);
    setTimeout(() => step.raw.exec('COMMIT'), 1500);
    const run = await finished({ ...SEARCH, most: 50 });
    clearInterval(heart);
    await step.close();
    expect(run.counts.messages + run.counts.deleted).toBe(50);
    expect(beats).toBeGreaterThan(40);
  });

  it('stops at the number that was asked for', async () => {
    await begin();
    const run = await finished({ ...SEARCH, most: 50 });
    expect(run.counts.messages + run.counts.deleted).toBe(50);
  });

  it('waits for the budget, renews its token and goes on after faults, with the same result', async () => {
    await begin();
    const easy = (await finished(SEARCH)).counts;
    await collector.close();
    await runner.close();
    await studies.close();
    await standins.close();
    await begin({ requests: 2, windowSeconds: 3, tokenRequests: 3, faultEvery: 3 });
    const run = await finished(SEARCH);
    expect(run.counts).toMatchObject({ messages: easy.messages, deleted: easy.deleted });
    expect(run.counts.limited).toBeGreaterThan(0);
    expect(run.counts.faults).toBeGreaterThan(0);
    expect(run.counts.tokens).toBeGreaterThan(1);
    expect(run.notes.join(' ')).toContain('budget of requests was used up');
  }, 60_000);

  it('expands short links of the service, and keeps both', async () => {
    await begin();
    const run = await finished({ ...SEARCH, query: 'lamps OR the OR a', most: 200 });
    expect(run.counts.expandedLinks).toBeGreaterThan(0);
    const row = await store.query
      .selectFrom('message')
      .select(['text', 'more'])
      .where('more', 'like', '%expanded links%')
      .executeTakeFirstOrThrow();
    const [short, long] = (JSON.parse(row.more!) as { attributes: Record<string, string> }).attributes[
      'expanded links'
    ].split(' → ');
    expect(row.text).toContain(short);
    expect(long).toMatch(/^https:\/\/[\w.-]+\.example\//);
  });
});

describe('what can be collected', () => {
  it('comments of items by rating, under their items', async () => {
    await begin();
    const run = await finished({
      what: 'comments',
      items: ['rc1002', 'https://reelcove.example/v/rc1005'],
      most: 10,
      order: 'rating',
    });
    expect(run.counts).toMatchObject({ items: 2, messages: 20 });
    expect(await countOf('item')).toBe(2);
    const loose = await store.query
      .selectFrom('message')
      .select('id')
      .where('item_key', 'is', null)
      .execute();
    expect(loose.length).toBeLessThan(20);
  });

  it('followers with their details', async () => {
    await begin();
    const run = await finished({
      what: 'followers',
      accounts: ['@marsh_records', 'nobody_here'],
      most: 60,
      details: true,
    });
    expect(run.counts.follows).toBe(60);
    expect(await countOf('follow')).toBe(60);
    expect(await countOf('profile')).toBeGreaterThanOrEqual(60);
    expect(run.notes).toContain('There is no account “nobody_here”.');
  });

  it('the posts of accounts, and details of accounts that are there', async () => {
    await begin();
    const run = await finished({ what: 'posts', accounts: ['wall_lamps_now'], most: 30 });
    expect(run.counts.messages + run.counts.deleted).toBe(30);
    const details = await finished({ what: 'details', accounts: ['wall_lamps_now', 'estuary_news'] });
    expect(details.counts.profiles).toBeGreaterThan(0);
    expect(await countOf('profile')).toBeGreaterThan(0);
  });

  it('emails of a mailbox, and later only what is new', async () => {
    await begin();
    const plan: CollectPlan = {
      what: 'mail',
      mailboxes: ['lists'],
      text: '',
      from: null,
      until: null,
      most: 90,
    };
    const run = await finished(plan);
    expect(run.counts.messages).toBe(90);
    expect(await countOf('message')).toBe(90);
    const again = (await collector.command(STUDY, run.id, 'again'))!;
    const second = await until(again.id, 'done');
    expect(second.counts.messages).toBe(0);
    expect(await countOf('message')).toBe(90);
  });
});

describe('a search that is done again', () => {
  it('asks for what is newer than the last that was found, also where one between found nothing', async () => {
    await begin();
    let run = await finished(SEARCH);
    const there = await countOf('message');
    expect(there).toBeGreaterThan(110);
    for (let i = 0; i < 2; i++) {
      run = await until((await collector.command(STUDY, run.id, 'again'))!.id, 'done');
      expect(run.counts.messages + run.counts.repeated).toBeLessThan(10);
    }
    expect(await countOf('message')).toBe(there);
  });
});

describe('a run for whose messages there is no room', () => {
  it('waits when the step that stores them finds the disk full, and goes on by itself', async () => {
    await begin();
    collector = new Collector(studies, runner, standins.services, 5, 50);
    const submit = runner.submit.bind(runner);
    let refused = 0;
    jest.spyOn(runner, 'submit').mockImplementation(async (study, request) => {
      if (request.kind !== 'collect-source' || refused++ > 0) return submit(study, request);
      return { step: { state: 'failed', error: STEP_NEEDS_ROOM } as Step, place: {} };
    });
    const { id } = await start(SEARCH);
    let run = (await findRun(store, id))!;
    for (let i = 0; i < 500 && run.state !== 'done'; i++) {
      await new Promise((done) => setTimeout(done, 20));
      run = (await findRun(store, id))!;
    }
    jest.restoreAllMocks();
    expect(refused).toBe(2);
    expect(run.counts.messages + run.counts.deleted).toBe(120);
    expect(await countOf('message')).toBe(run.counts.messages);
  }, 60_000);
});

describe('a run that is interrupted', () => {
  const slow: Partial<GateSettings> = { requests: 2, windowSeconds: 3 };

  it('says until when it waits, is paused, and goes on where it was', async () => {
    await begin(slow);
    const { id } = await start(SEARCH);
    const waiting = await until(id, 'waiting');
    expect(waiting.waitUntil).toBeGreaterThan(Date.now() - 3000);
    const paused = (await collector.command(STUDY, id, 'pause'))!;
    expect(paused).toMatchObject({ state: 'paused', waitUntil: null });
    expect(paused.counts.messages).toBeGreaterThan(0);
    await collector.command(STUDY, id, 'resume');
    const run = await until(id, 'done');
    expect(run.counts.messages + run.counts.deleted).toBe(120);
  }, 60_000);

  it('keeps what is there when it is ended by hand', async () => {
    await begin(slow);
    const { id } = await start(SEARCH);
    await until(id, 'waiting');
    await collector.command(STUDY, id, 'cancel');
    const run = await until(id, 'cancelled');
    expect(run.counts.messages).toBeGreaterThan(0);
    expect(await countOf('message')).toBe(run.counts.messages);
    expect(run.notes.join()).toContain('was ended by hand after');
  }, 60_000);

  it('survives the end of the application, and cuts off what was not yet counted', async () => {
    await begin(slow);
    const { id } = await start(SEARCH);
    await until(id, 'waiting');
    await collector.close();
    const spool = join(store.folder, 'collecting', `${id}.jsonl`);
    const { size } = statSync(spool);
    appendFileSync(spool, '{"type":"Note","id":"half');
    collector = new Collector(studies, runner, standins.services, 5);
    await collector.resumeAll();
    const run = await until(id, 'done');
    expect(size).toBeGreaterThan(0);
    expect(run.counts.messages + run.counts.deleted).toBe(120);
    expect(await countOf('message')).toBe(run.counts.messages);
  }, 60_000);

  it('is forgotten with all that it brought', async () => {
    await begin(slow);
    const { id } = await start(SEARCH);
    await until(id, 'waiting');
    await collector.command(STUDY, id, 'forget');
    expect(await listRuns(store)).toEqual([]);
    expect(await countOf('message')).toBe(0);
  }, 60_000);
});

describe('access', () => {
  it('is refused with a wrong secret, in words that do not repeat it', async () => {
    await begin();
    const access = { ...accessTo('hub'), clientId: 'researcher', secret: 'not-the-secret' };
    const refused = collector.describe(access);
    await expect(refused).rejects.toThrow('does not accept this client id and secret');
    await expect(refused).rejects.not.toThrow('not-the-secret');
  });

  it('is kept in a file that only its owner reads, and nowhere else', async () => {
    await begin();
    const { service } = accessTo('hub');
    await standins.close();
    standins = await startStandins(0, QUICK);
    const other = { ...service, address: standins.services[0].service.address };
    await collector.begin(STUDY, {
      name: 'Own',
      access: { service: other, clientId: 'researcher', secret: 'amber-lamp' },
      plan: { ...SEARCH, most: 10 },
    });
    const [run] = await listRuns(store);
    await until(run.id, 'done');
    const file = join(folder, 'secrets.json');
    expect(statSync(file).mode & 0o777).toBe(0o600);
    expect(readFileSync(file, 'utf8')).toContain('amber-lamp');
    store.raw.pragma('wal_checkpoint(truncate)');
    expect(readFileSync(join(store.folder, 'study.sqlite')).includes('amber-lamp')).toBe(false);
    expect(JSON.stringify([collector.services(), run, await listSteps(store)])).not.toContain('amber-lamp');
  });

  it('is asked for again where its file cannot be read, which is kept', async () => {
    await begin();
    const file = join(folder, 'secrets.json');
    writeFileSync(file, '[{"service": ');
    expect(collector.services().every(({ simulated }) => simulated)).toBe(true);
    const service = { ...accessTo('hub').service, address: 'http://127.0.0.1:9' };
    await expect(collector.describe({ service, clientId: '', secret: '' })).rejects.toThrow('cannot be read');
    new Secrets(folder).keep({ service, clientId: 'a', secret: 'b' });
    expect(readFileSync(`${file}.broken`, 'utf8')).toBe('[{"service": ');
    expect(new Secrets(folder).find(service.address)?.secret).toBe('b');
  });

  it('tells the cost before it begins', async () => {
    await begin({ requests: 3, windowSeconds: 10 });
    const estimate = await collector.estimate(accessTo('hub'), { ...SEARCH, most: 5000 });
    expect(estimate).toMatchObject({ requests: 10, waitSeconds: 30 });
    expect(estimate.notes).toEqual([
      'One search gives at most 400 messages, fewer than asked for.',
      'A search reaches about 7 days back.',
    ]);
  });
});

describe('a service that leads elsewhere', () => {
  let server: Server;
  afterEach(() => new Promise((done) => server.close(done)));

  it('is not followed', async () => {
    await begin();
    server = createServer((request, response) => {
      const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
      const answers: Record<string, object> = {
        '/.well-known/oauth-authorization-server': { token_endpoint: `${origin}/token` },
        '/token': { access_token: 'x', token_type: 'Bearer' },
        '/': { name: 'Trap', endpoints: { search: 'http://127.0.0.1:1/elsewhere{?q}' } },
      };
      response.end(JSON.stringify(answers[request.url ?? ''] ?? {}));
    });
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
    const { id } = await collector.begin(STUDY, {
      name: 'Trap',
      access: { service: { kind: 'hub', name: 'Trap', address }, clientId: 'a', secret: 'b' },
      plan: SEARCH,
    });
    await expect(until(id, 'done')).rejects.toThrow(
      'leads to another address (127.0.0.1:1), which is not opened',
    );
  });
});
