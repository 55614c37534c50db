import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CollectRun, NewStandingRoutine, RoutineRun, RunCommand, StandingWhen } from '@pebble/contract';
import { onMessagesThere, READY_ROUTINES } from '@pebble/core';
import { pino } from 'pino';
import { openEngine, type Engine } from './engine';
import { uploadPath } from './files/places';
import { nextTurn } from './routines/nextTurn';
import { StandingRoutines } from './routines/standing';
import { findRun, listRuns } from './storage/routineRuns';
import { listStanding } from './storage/standingRoutines';
import type { Store } from './storage/open';
import { buildThreads, testConfig, workerFile } from './testing/application';

const POSTS = [
  'author,text,time',
  'ann,@ben hello,2026-03-01T10:00:00Z',
  'ben,@ann yes,2026-03-01T11:00:00Z',
].join('\n');
const who = READY_ROUTINES.find(({ id }) => id === 'who-talks-to-whom')!.routine;
const STUDY = 'abcdef0123';
const DAILY: StandingWhen = { on: 'time', weekday: null, at: '07:30', zone: 'Europe/Berlin', collect: null };

describe('a routine that runs by itself', () => {
  let folder: string;
  let engine: Engine;
  let standing: StandingRoutines;
  let store: Store;
  let now: Date;
  let commands: [string, RunCommand][];
  let answered: CollectRun | null | Error;

  const open = async (): Promise<void> => {
    const config = { ...testConfig(folder), dataFolder: folder };
    engine = await openEngine(config, { workerFile, log: pino({ level: 'silent' }) });
    const command = (_: string, run: string, what: RunCommand): Promise<CollectRun | null> => {
      commands.push([run, what]);
      return answered instanceof Error ? Promise.reject(answered) : Promise.resolve(answered);
    };
    standing = new StandingRoutines(engine.studies, engine.runner, engine.routines, command, () => now);
    store = engine.studies.storeOf(STUDY)!;
  };
  const close = async (): Promise<void> => {
    const stood = standing.close();
    await engine.close();
    await stood;
  };

  beforeAll(() => buildThreads(), 60_000);
  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), 'pebble-standing-'));
    now = new Date('2026-03-27T12:00:00Z');
    commands = [];
    answered = null;
    await open();
    await engine.runner.submit(STUDY, { kind: 'create-study', parameters: { name: 'Standing' } });
    store = engine.studies.storeOf(STUDY)!;
    await standing.start();
  });
  afterEach(async () => {
    await close();
    rmSync(folder, { recursive: true, force: true });
  });

  const stands = (when: StandingWhen, change: Partial<NewStandingRoutine> = {}) =>
    standing.begin(STUDY, { routine: onMessagesThere(who), answers: {}, when, ...change });
  const take = async (): Promise<void> => {
    const upload = randomUUID();
    writeFileSync(uploadPath(store.folder, upload), POSTS);
    const { reading } = await engine.runner.repreview(
      { path: uploadPath(store.folder, upload), name: 'posts.csv', size: POSTS.length },
      {},
    );
    const parameters = { upload, file: 'posts.csv', name: 'posts.csv', reading };
    const { step } = await engine.runner.submit(STUDY, { kind: 'import-source', parameters });
    expect(step.error).toBeNull();
  };
  const ranUntil = async (count: number): Promise<RoutineRun[]> => {
    for (let i = 0; i < 600; i++) {
      const runs = await listRuns(store);
      if (runs.length >= count && runs.every(({ state }) => state !== 'running')) break;
      await new Promise((done) => setTimeout(done, 20));
    }
    await standing.settled();
    return listRuns(store);
  };
  const kept = async () => (await listStanding(store))[0];

  it('runs after each import, once, on what the study has then', async () => {
    await stands({ on: 'import' });
    await stands({ on: 'collecting' });
    await take();
    const [run, ...others] = await ranUntil(1);
    expect(others).toEqual([]);
    expect([run.state, run.standing]).toEqual(['done', 1]);
    expect(run.steps.map(({ name }) => name)).toEqual(['network', 'arrangement', 'plate']);
    // What a run takes in itself is no cause for another one.
    const upload = randomUUID();
    writeFileSync(uploadPath(store.folder, upload), POSTS);
    const { id } = await engine.routines.begin(STUDY, who, { file: [{ upload, file: 'posts.csv' }] });
    await engine.routines.ended(STUDY, id);
    await standing.settled();
    expect(await listRuns(store)).toHaveLength(2);
    await take();
    expect(await ranUntil(3)).toHaveLength(3);
  });

  it('makes up for what came while the application was closed, and goes on with a run that was cut off', async () => {
    await stands({ on: 'import' });
    await standing.close();
    await take();
    expect(await listRuns(store)).toEqual([]);
    await close();
    await open();
    await standing.start();
    const [run] = await ranUntil(1);
    expect(run.state).toBe('done');
    await store.query.updateTable('routine_run').set({ state: 'running' }).execute();
    await store.query
      .deleteFrom('step')
      .where('run_id', '=', run.id)
      .where('run_part', '=', 'plate')
      .execute();
    await close();
    await open();
    expect((await findRun(store, run.id))!.state).toBe('interrupted');
    await standing.start();
    for (let i = 0; i < 400 && (await findRun(store, run.id))!.state !== 'done'; i++)
      await new Promise((done) => setTimeout(done, 20));
    expect((await listRuns(store)).map(({ state }) => state)).toEqual(['done']);
  });

  it('runs at its time of day, once for all turns that were missed', async () => {
    const { next } = await stands(DAILY);
    expect(next).toBe('2026-03-28T06:30:00.000Z');
    standing.lookAtClock();
    await standing.settled();
    expect(await listRuns(store)).toEqual([]);
    // The clocks are put forward on 29 March.
    now = new Date('2026-03-31T05:00:00Z');
    standing.lookAtClock();
    await take();
    const runs = await ranUntil(1);
    expect(runs).toHaveLength(1);
    expect((await kept()).next).toBe('2026-03-31T05:30:00.000Z');
    // After a start it is known again; a study without a turn is not looked at.
    await close();
    await open();
    await standing.start();
    await standing.settled();
    now = new Date('2026-03-31T06:00:00Z');
    const look = jest.spyOn(engine.studies, 'storeOf');
    standing.lookAtClock();
    expect(await ranUntil(2)).toHaveLength(2);
    look.mockClear();
    standing.lookAtClock();
    await standing.settled();
    expect(look).not.toHaveBeenCalled();
  });

  it('rests while it is off, and does not make up for that', async () => {
    const { id } = await stands({ on: 'import' });
    expect(await standing.switch(STUDY, id, false)).toMatchObject({ isOn: false, next: null });
    await take();
    await standing.settled();
    expect(await standing.switch(STUDY, id, true)).toMatchObject({ isOn: true });
    standing.lookAtClock();
    await standing.settled();
    expect(await listRuns(store)).toEqual([]);
    expect(await standing.end(STUDY, id)).toBe(true);
    expect(await standing.end(STUDY, id)).toBe(false);
    expect(await standing.switch(STUDY, id, true)).toBeNull();
  });

  describe('after collecting anew', () => {
    const collecting = async (id: string, state: string): Promise<void> => {
      const row = {
        name: 'A search',
        service: '{}',
        plan: '{}',
        counts: '{}',
        notes: '[]',
        place: null,
        spool_bytes: 0,
        share: null,
        wait_until: null,
        error: null,
        source_id: null,
        previous: null,
        service_state: null,
        ended_by_hand: 0,
        created_at: now.toISOString(),
        ended_at: null,
      };
      await store.query
        .insertInto('collect_run')
        .values({ id, state, ...row })
        .onConflict((c) => c.column('id').doUpdateSet({ state }))
        .execute();
    };
    const looked = async (): Promise<void> => {
      engine.runner.tell(STUDY, { type: 'collecting', run: { state: 'done' } as CollectRun });
      await standing.settled();
    };

    it('waits until all has come, and asks for what is newer the next time', async () => {
      await collecting('first', 'done');
      await take();
      await stands({ ...DAILY, collect: 'first' });
      await collecting('second', 'running');
      answered = { id: 'second' } as CollectRun;
      now = new Date('2026-03-28T07:00:00Z');
      await looked();
      expect(commands).toEqual([['first', 'again']]);
      expect([(await kept()).waitsFor, await listRuns(store)]).toEqual(['second', []]);
      // It stopped on its way: the next turn goes on with it.
      await collecting('second', 'paused');
      await looked();
      expect((await kept()).note).toMatch(/stopped/);
      now = new Date('2026-03-29T07:00:00Z');
      await looked();
      expect(commands.at(-1)).toEqual(['second', 'resume']);
      await collecting('second', 'done');
      await looked();
      expect((await listRuns(store)).map(({ state }) => state)).toEqual(['done']);
      expect(await kept()).toMatchObject({ waitsFor: null, note: null, when: { collect: 'second' } });
    });

    it('says why nothing could be collected, and tries at its next turn', async () => {
      await collecting('first', 'done');
      await stands({ ...DAILY, collect: 'first' });
      answered = new Error('The service does not answer.');
      now = new Date('2026-03-28T07:00:00Z');
      await looked();
      expect(await kept()).toMatchObject({
        note: 'Nothing could be collected. The service does not answer.',
      });
      expect((await kept()).next).toBe('2026-03-29T05:30:00.000Z');
      expect(await listRuns(store)).toEqual([]);
    });
  });

  it.each<[string, () => Promise<unknown>, RegExp]>([
    ['that asks for a file', () => stands({ on: 'import' }, { routine: who }), /asks for 1 file each time/],
    [
      'with an answer that does not fit',
      () => stands({ on: 'import' }, { answers: { least: 0 } }),
      /1 or more/,
    ],
    [
      'after a collecting run that is not there',
      () => stands({ ...DAILY, collect: 'none' }),
      /no such collecting run/,
    ],
  ])('is refused where it is one %s', async (_, begun, reason) => {
    await expect(begun()).rejects.toThrow(reason);
    expect(await listStanding(store)).toEqual([]);
  });

  it('does not run by itself in a copy of its study', async () => {
    await stands(DAILY);
    const { step } = await engine.runner.submit(STUDY, {
      kind: 'duplicate-study',
      parameters: { name: 'Twin' },
    });
    expect(step.error).toBeNull();
    const twin = [...engine.studies].find(({ study }) => study !== STUDY)!;
    expect(await listStanding(twin)).toMatchObject([{ isOn: false, next: null }]);
  });
});

describe('the next turn', () => {
  // By the IANA time zone database: Berlin is put forward on 29 March 2026 and back on 25 October (02:30 does not exist
  // in the night of the former: it runs when the clock is put forward), New York on 8 March and 1 November.
  it.each([
    ['2026-03-28T12:00:00Z', 'Europe/Berlin', '02:30', null, '2026-03-29T01:00:00.000Z'],
    ['2026-10-24T12:00:00Z', 'Europe/Berlin', '07:30', null, '2026-10-25T06:30:00.000Z'],
    ['2026-03-07T20:00:00Z', 'America/New_York', '09:00', 1, '2026-03-09T13:00:00.000Z'],
    ['2026-12-31T23:59:30Z', 'UTC', '00:00', null, '2027-01-01T00:00:00.000Z'],
    ['2026-03-01T00:00:00Z', 'UTC', '00:00', 0, '2026-03-08T00:00:00.000Z'],
  ] as const)('after %s in %s at %s', (after, zone, at, weekday, expected) => {
    expect(nextTurn({ on: 'time', weekday, at, zone, collect: null }, new Date(after))).toBe(expected);
  });

  it('is none where the clock does not matter', () => {
    expect(nextTurn({ on: 'import' }, new Date())).toBeNull();
  });
});
