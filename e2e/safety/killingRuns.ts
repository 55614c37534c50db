import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CollectPlan, CollectRun, Service } from '@pebble/contract';
import { difference, keptIn, type Kept } from './kept';
import type { Killed } from './killing';
import { idle, pause, Served } from './served';

const PLAN: CollectPlan = {
  what: 'search',
  query: '#LateLampPlan',
  language: '',
  from: null,
  until: null,
  most: 1000,
};
/** Kills in the middle of one run. */
const TIMES = 3;

/** Collects from a simulated service, kills the process several times on the way, and compares what came with a run that nobody disturbed. */
export async function killingRuns(rounds: number, port: number): Promise<Killed> {
  const whole = await collected(port, null);
  const faults: string[] = [];
  let [kills, inTheMiddle] = [0, 0];
  for (let round = 0; round < rounds; round++) {
    const found = await collected(port, whole.duration);
    kills += found.kills;
    inTheMiddle += found.inTheMiddle;
    faults.push(
      ...found.kept.faults,
      ...difference(found.kept, whole.kept).map((one) => `collecting: ${one}`),
    );
    if (found.messages !== whole.messages)
      faults.push(`collecting: ${found.messages} messages came instead of ${whole.messages}`);
  }
  return { kills, inTheMiddle, faults };
}

interface Collected {
  readonly kept: Kept;
  readonly messages: number;
  readonly duration: number;
  readonly kills: number;
  readonly inTheMiddle: number;
}

/** @param killedWithin milliseconds within which the process is killed each time; null for a run that nobody disturbs */
async function collected(port: number, killedWithin: number | null): Promise<Collected> {
  const folder = mkdtempSync(join(tmpdir(), 'pebble-collected-'));
  let app = await Served.start(folder, port, { standins: true });
  let [kills, inTheMiddle] = [0, 0];
  try {
    const { id: study } = await app.succeed<{ id: string }>('POST', '/studies', { name: 'Collected' });
    const services = await app.succeed<(Service & { kind: string })[]>('GET', '/services');
    const { kind, name, address } = services.find((one) => one.kind === 'hub')!;
    const access = { service: { kind, name, address }, clientId: '', secret: '' };
    const begun = performance.now();
    const { id } = await app.succeed<CollectRun>('POST', `/studies/${study}/runs`, {
      name: 'Run',
      access,
      plan: PLAN,
    });
    const state = async (): Promise<CollectRun> =>
      (await app.succeed<{ runs: CollectRun[] }>('GET', `/studies/${study}/runs`)).runs.find(
        (run) => run.id === id,
      )!;
    for (let i = 0; killedWithin !== null && i < TIMES; i++) {
      await pause((Math.random() * killedWithin) / 2);
      if ((await state()).state !== 'done') inTheMiddle++;
      await app.kill();
      kills++;
      app = await Served.start(folder, port, { standins: true });
    }
    for (;;) {
      const run = await state();
      if (run.state === 'done') break;
      if (run.state === 'failed' || run.state === 'cancelled')
        throw new Error(`The run is ${run.state}: ${run.error}`);
      await pause(20);
    }
    await idle(app, study);
    const duration = performance.now() - begun;
    const { messages } = await app.succeed<{ messages: number }>('GET', `/studies/${study}`);
    await app.stop();
    return { kept: keptIn(folder), messages, duration, kills, inTheMiddle };
  } finally {
    await app.kill();
    rmSync(folder, { recursive: true, force: true });
  }
}
