import { execFileSync } from 'node:child_process';
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { READY_ROUTINES } from '@pebble/core';
import { openEngine, uploadPath, type Engine } from '../../apps/server/src/engine';
import { listSteps, stepsOfRuns } from '../../apps/server/src/storage/steps';
import { writePosts } from '../../e2e/journey/material';
import { atMost, time, under, type Row } from './measure';

const ROOT = join(import.meta.dirname, '../..');
const STUDY = 'abcdef0123';
const ready = (id: string) => READY_ROUTINES.find((one) => one.id === id)!.routine;

/** Routines: from file to plate by the command line, and a whole beside the sum of its steps. */
export async function routines(posts: number): Promise<Row[]> {
  return [await byCommand(), await besideItsSteps(posts)];
}

/** Fifty answers to one question. */
export async function manyVariations(posts: number): Promise<Row[]> {
  return [await variations(Math.min(posts, 100_000), 50)];
}

/** With the start of the program, and all that the routine gives as files. */
async function byCommand(): Promise<Row> {
  const seconds =
    (await time(2, () => {
      const out = mkdtempSync(join(tmpdir(), 'pebble-bench-out-'));
      const words = ['run', 'who-talks-to-whom', '--in', join(ROOT, 'demo/tidepost.csv'), '--out', out];
      execFileSync(process.execPath, [join(ROOT, 'apps/command/dist/main.js'), ...words], {
        env: { ...process.env, PEBBLE_DATA: join(out, 'data') },
      });
      rmSync(out, { recursive: true, force: true });
    })) / 1000;
  return under(
    'A routine from file to plate and files, by command line',
    'demo, 9,000 posts',
    seconds,
    10,
    's',
  );
}

/** What the whole takes beside its steps and what follows these by itself. */
async function besideItsSteps(posts: number): Promise<Row> {
  return inEngine(posts, async (engine, file) => {
    const began = performance.now();
    const { id } = await engine.routines.begin(STUDY, ready('who-talks-to-whom'), { file: [file] });
    const { state, steps: parts } = await engine.routines.ended(STUDY, id);
    const whole = performance.now() - began;
    const why = parts.map(({ name, error }) => (error ? ` ${name}: ${error}` : '')).join('');
    if (state !== 'done') throw new Error(`The run is ${state}.${why}`);
    const steps = await listSteps(engine.studies.storeOf(STUDY)!);
    const sum = steps
      .filter(({ kind }) => kind !== 'create-study')
      .reduce((all, { startedAt, endedAt }) => all + Date.parse(endedAt!) - Date.parse(startedAt), 0);
    const work = `${posts.toLocaleString('en')} posts`;
    return atMost(
      'A routine beside the sum of its steps',
      work,
      whole,
      sum,
      1.1,
      'with what follows them by itself',
    );
  });
}

/** One after the other in the background: the most steps that ran at once. */
async function variations(posts: number, count: number): Promise<Row> {
  return inEngine(posts, async (engine, file) => {
    const running = new Set<number>();
    let most = 0;
    engine.runner.listen(STUDY, (event) => {
      if (event.type === 'progress') running.add(event.progress.step);
      if (event.type === 'step') running.delete(event.step.id);
      most = Math.max(most, running.size);
    });
    const began = performance.now();
    const values = Array.from({ length: count }, (_, i) => 2 + i);
    const asked = {
      routine: ready('hashtags-together'),
      answers: { file: [file] },
      question: 'least',
      values,
    };
    const runs = await engine.routines.vary(STUDY, asked);
    for (const { id } of runs)
      while (['waiting', 'running'].includes((await engine.routines.ended(STUDY, id)).state))
        await new Promise((later) => setTimeout(later, 20));
    const seconds = (performance.now() - began) / 1000;
    const done = await stepsOfRuns(engine.studies.storeOf(STUDY)!);
    const memory = Math.round(process.memoryUsage.rss() / 1e6);
    const note = `at most ${most} steps at once, ${done.size} runs, ${seconds.toFixed(0)} s, ${memory} MB`;
    return under(
      `${count} variations: steps at once`,
      `${posts.toLocaleString('en')} posts`,
      most,
      3,
      '',
      note,
    );
  });
}

interface Sent {
  readonly upload: string;
  readonly file: string;
}

async function inEngine<T>(posts: number, work: (engine: Engine, file: Sent) => Promise<T>): Promise<T> {
  const folder = mkdtempSync(join(tmpdir(), 'pebble-bench-'));
  const config = { dataFolder: join(folder, 'data'), mostRows: 5_000_000, longestLook: 60_000 };
  const engine = await openEngine(config, { workerFile: join(import.meta.dirname, 'runner/thread.cjs') });
  try {
    const path = join(folder, 'posts.csv');
    writePosts(path, posts);
    await engine.runner.submit(STUDY, { kind: 'create-study', parameters: { name: 'Bench' } });
    const upload = 'aaaaaaaa-0000-0000-0000-000000000000';
    copyFileSync(path, uploadPath(engine.studies.folderOf(STUDY), upload));
    return await work(engine, { upload, file: 'posts.csv' });
  } finally {
    await engine.close();
    rmSync(folder, { recursive: true, force: true });
  }
}
