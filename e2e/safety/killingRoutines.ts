import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { RoutineRun, StandingRoutine, Step, UploadAnswer } from '@pebble/contract';
import { onMessagesThere, READY_ROUTINES } from '@pebble/core';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import type { Killed } from './killing';
import { pause, Served } from './served';

const POSTS = 3000;
/** Kills in the middle of one run. */
const TIMES = 3;
const ROUTINE = READY_ROUTINES.find(({ id }) => id === 'who-talks-to-whom')!.routine;

/** How a run begins: by somebody, who goes on with it after a kill, or by itself after an import. */
type Way = 'by hand' | 'by itself';

/** Runs a routine, kills the process several times on the way, and compares what came out with a run that nobody disturbed. */
export async function killingRoutines(rounds: number, port: number): Promise<Killed> {
  const faults: string[] = [];
  let [kills, inTheMiddle] = [0, 0];
  for (const way of ['by hand', 'by itself'] as const) {
    const whole = await done(way, port, null);
    for (let round = 0; round < rounds; round++) {
      const found = await done(way, port, whole.duration);
      kills += found.kills;
      inTheMiddle += found.inTheMiddle;
      faults.push(...found.faults.map((one) => `routine ${way}: ${one}`));
      if (JSON.stringify(found.results) !== JSON.stringify(whole.results))
        faults.push(`routine ${way}: what came out is not the same after ${found.kills} kills`);
    }
  }
  return { kills, inTheMiddle, faults };
}

interface Done {
  readonly results: RoutineRun['results'];
  readonly duration: number;
  readonly kills: number;
  readonly inTheMiddle: number;
  readonly faults: readonly string[];
}

/** @param killedWithin milliseconds within which the process is killed each time; null for a run that nobody disturbs */
async function done(way: Way, port: number, killedWithin: number | null): Promise<Done> {
  const folder = mkdtempSync(join(tmpdir(), 'pebble-routine-'));
  let app = await Served.start(folder, port);
  let [kills, inTheMiddle] = [0, 0];
  try {
    const { id: study } = await app.succeed<{ id: string }>('POST', '/studies', { name: 'Routine' });
    const at = `/studies/${study}`;
    const { body } = await app.send<UploadAnswer>(
      study,
      'posts.jsonl',
      postsAsJsonLines(makePosts(POSTS).posts),
    );
    const [{ id: upload, preview }] = body.uploads;
    const file = { upload, file: 'posts.jsonl' };
    const runs = (): Promise<RoutineRun[]> => app.succeed('GET', `${at}/routine-runs`);
    const begun = performance.now();
    if (way === 'by hand') {
      await app.succeed('POST', `${at}/routine-runs`, { routine: ROUTINE, answers: { file: [file] } });
    } else {
      const routine = onMessagesThere(ROUTINE);
      await app.succeed<StandingRoutine>('POST', `${at}/standing-routines`, {
        routine,
        when: { on: 'import' },
      });
      const parameters = { ...file, name: 'Posts', reading: preview.reading };
      await app.succeed<Step>('POST', `${at}/steps`, { kind: 'import-source', parameters });
    }
    for (let i = 0; killedWithin !== null && i < TIMES; i++) {
      await pause((Math.random() * killedWithin) / 2);
      if ((await runs()).at(0)?.state !== 'done') inTheMiddle++;
      await app.kill();
      kills++;
      app = await Served.start(folder, port);
      const [run] = await runs();
      if (way === 'by hand' && run.state === 'interrupted')
        await app.succeed('POST', `${at}/routine-runs/${run.id}/go-on`);
    }
    const all = await ended(runs);
    const duration = performance.now() - begun;
    const { steps } = await app.succeed<{ steps: Step[] }>('GET', `${at}/logbook?limit=500`);
    await app.stop();
    const twice = (['import-source', 'weave', 'keep-plate'] as const).flatMap((kind) => {
      const times = steps.filter((step) => step.kind === kind && step.state === 'done').length;
      return times === 1 ? [] : [`${kind} was done ${times} times`];
    });
    const faults = [
      ...twice,
      ...(all.length === 1 ? [] : [`there are ${all.length} runs`]),
      ...(all[0].state === 'done' ? [] : [`it is ${all[0].state}`]),
    ];
    return { results: all[0].results, duration, kills, inTheMiddle, faults };
  } finally {
    await app.kill();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Waits until there is a run and it has ended. */
async function ended(runs: () => Promise<RoutineRun[]>): Promise<RoutineRun[]> {
  for (let i = 0; i < 6000; i++) {
    const all = await runs();
    if (all.length > 0 && all.every(({ state }) => state !== 'running' && state !== 'waiting')) return all;
    await pause(20);
  }
  throw new Error('The run did not end.');
}
