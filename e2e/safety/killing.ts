import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Step, StepKind } from '@pebble/contract';
import { PARAMETERS } from './everyStep';
import { prepare, type Prepared } from './prepared';
import { difference, keptIn, type Kept } from './kept';
import { idle, Served } from './served';

/** What came of killing the application in the middle of steps. */
export interface Killed {
  readonly kills: number;
  /** Of them those that hit the step while it ran. */
  readonly inTheMiddle: number;
  /** What was said to be done and was not there afterwards, what was there twice, what did not fit together. */
  readonly faults: readonly string[];
}

type Kind = keyof typeof PARAMETERS;

/**
 * For each kind of step, so many times: begins it on a copy of a prepared study, kills the process at a random moment, starts it again, looks
 * at what is there, runs again what was interrupted, and compares with what the step leaves without being killed.
 * @param told is told after each kind how many kills it had and what was wrong
 */
export async function killing(
  rounds: number,
  port: number,
  kinds: readonly Kind[],
  told: (kind: Kind, kills: number, faults: readonly string[]) => void = () => undefined,
): Promise<Killed> {
  const base = mkdtempSync(join(tmpdir(), 'pebble-prepared-'));
  const app = await Served.start(base, port);
  const prepared = await prepare(app);
  await app.stop();
  let kills = 0;
  let inTheMiddle = 0;
  const faults: string[] = [];
  try {
    const before = keptIn(base);
    for (const kind of kinds) {
      const whole = await onCopy(base, port, (again) => finished(again, prepared, kind));
      const known = faults.length;
      for (let round = 0; round < rounds; round++) {
        const found = await onCopy(base, port, (again) => killedOnce(again, prepared, kind, whole, before));
        kills++;
        if (found.wasRunning) inTheMiddle++;
        faults.push(
          ...found.faults.map((fault) => `${kind}, killed after ${found.after.toFixed(0)} ms: ${fault}`),
        );
      }
      told(kind, rounds, faults.slice(known));
    }
    return { kills, inTheMiddle, faults };
  } finally {
    rmSync(base, { recursive: true, force: true });
  }
}

interface Whole {
  readonly kept: Kept;
  /** Milliseconds until all that follows was done. */
  readonly duration: number;
}

/** Starts applications on one copy of a folder, one after the other. */
interface Starting {
  readonly folder: string;
  start(): Promise<Served>;
}

async function onCopy<T>(base: string, port: number, work: (again: Starting) => Promise<T>): Promise<T> {
  const folder = mkdtempSync(join(tmpdir(), 'pebble-killed-'));
  cpSync(base, folder, { recursive: true });
  let running: Served | null = null;
  try {
    return await work({ folder, start: async () => (running = await Served.start(folder, port)) });
  } finally {
    await (running as Served | null)?.kill();
    rmSync(folder, { recursive: true, force: true });
  }
}

const run = (app: Served, { study }: Prepared, kind: StepKind, parameters: unknown): Promise<Step> =>
  app.succeed<Step>('POST', `/studies/${study}/steps`, { kind, parameters });

async function finished(again: Starting, prepared: Prepared, kind: Kind): Promise<Whole> {
  const app = await again.start();
  const begun = performance.now();
  const done = await run(app, prepared, kind, PARAMETERS[kind](prepared));
  if (done.state !== 'done') throw new Error(`${kind} is not done without a kill: ${done.error}`);
  await idle(app, prepared.study);
  const duration = performance.now() - begun;
  await app.stop();
  return { kept: keptIn(again.folder), duration };
}

async function killedOnce(
  again: Starting,
  prepared: Prepared,
  kind: Kind,
  whole: Whole,
  before: Kept,
): Promise<{ after: number; wasRunning: boolean; faults: string[] }> {
  const faults: string[] = [];
  let app = await again.start();
  const known = await newest(app, prepared);
  const asked = run(app, prepared, kind, PARAMETERS[kind](prepared)).then(
    ({ state }) => state,
    () => 'unanswered',
  );
  const after = Math.random() * (whole.duration - QUIET);
  await new Promise((done) => setTimeout(done, Math.max(1, after)));
  await app.kill();
  const told = await asked;
  const left = keptIn(again.folder);
  faults.push(...left.faults);

  app = await again.start();
  const steps = (await idle(app, prepared.study)).filter(({ id }) => id > known).reverse();
  const mine = steps.find((step) => step.kind === kind);
  if (told === 'done' && mine?.state !== 'done') faults.push('it was told to be done, and is not');
  if (mine?.state !== 'done') faults.push(...difference(left, before).map((one) => `left behind: ${one}`));
  for (const step of steps)
    if (step.state !== 'done' && step.state !== 'interrupted')
      faults.push(`${step.kind} is ${step.state}: ${step.error}`);
  const wasRunning = steps.some(({ state }) => state === 'interrupted');
  // What follows another step was run again by itself.
  const isDone = (step: Step): boolean =>
    steps.some(({ id, kind: one, state }) => one === step.kind && state === 'done' && id > step.id);
  const interrupted = steps.filter((step) => step.state === 'interrupted' && !isDone(step));
  for (const step of mine ? interrupted : [null]) {
    const parameters = step?.parameters ?? PARAMETERS[kind](prepared);
    const done = await run(app, prepared, step?.kind ?? kind, parameters);
    if (done.state !== 'done') faults.push(`${done.kind} run again is ${done.state}: ${done.error}`);
  }
  await idle(app, prepared.study);
  await app.stop();
  const now = keptIn(again.folder);
  faults.push(...now.faults, ...now.orphans, ...difference(now, whole.kept));
  return { after, wasRunning, faults: [...new Set(faults)] };
}

/** Milliseconds in which nothing happens at the end of waiting for all that follows. */
const QUIET = 200;

async function newest(app: Served, { study }: Prepared): Promise<number> {
  const { steps } = await app.succeed<{ steps: Step[] }>('GET', `/studies/${study}/logbook?limit=1000`);
  return Math.max(0, ...steps.map(({ id }) => id));
}
