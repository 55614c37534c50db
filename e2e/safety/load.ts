import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Step, UploadAnswer } from '@pebble/contract';
import { writePosts } from '../journey/material';
import { pages, prepare } from './prepared';
import { pause, Served } from './served';

/** How long readers waited while something large was taken in. */
interface Beside {
  readonly readers: number;
  readonly reads: number;
  /** Milliseconds: of one in two, of 95 in 100, of all. */
  readonly median: number;
  readonly p95: number;
  readonly longest: number;
  readonly slowest: readonly string[];
  readonly importSeconds: number;
  readonly faults: readonly string[];
}

/** How memory went under a mixed load. */
interface Soaked {
  readonly minutes: number;
  readonly requests: number;
  /** Megabytes: the most of the second quarter of the time, and of the last. */
  readonly early: number;
  readonly late: number;
  readonly most: number;
  readonly faults: readonly string[];
}

/** Readers look at one study while many messages are taken into another. */
export async function readersBeside(port: number, readers = 30, posts = 200_000): Promise<Beside> {
  const folder = mkdtempSync(join(tmpdir(), 'pebble-beside-'));
  const app = await Served.start(folder, port);
  const faults: string[] = [];
  const waits: { path: string; time: number }[] = [];
  try {
    const prepared = await prepare(app);
    const file = join(folder, 'posts.csv');
    writePosts(file, posts);
    const { id: other } = await app.succeed<{ id: string }>('POST', '/studies', { name: 'Large' });
    const { body } = await app.send<UploadAnswer>(other, 'posts.csv', readFileSync(file));
    const [{ id, preview }] = body.uploads;
    const begun = performance.now();
    let isDone = false;
    const importing = app
      .succeed<Step>('POST', `/studies/${other}/steps`, {
        kind: 'import-source',
        parameters: { upload: id, file: 'posts.csv', name: 'posts.csv', reading: preview.reading },
      })
      .finally(() => (isDone = true));
    const paths = pages(prepared);
    const reader = async (number: number): Promise<void> => {
      for (let i = number; !isDone; i++) {
        const path = paths[i % paths.length];
        const asked = performance.now();
        const { status } = await app.ask('GET', path);
        waits.push({ path: path.replace(/[0-9a-f-]{10,}/g, 'ID'), time: performance.now() - asked });
        if (status !== 200) faults.push(`${status} ${path}`);
        // Somebody looks at what came.
        await pause(500);
      }
    };
    await Promise.all(Array.from({ length: readers }, (_, i) => reader(i)));
    const done = await importing;
    if (done.state !== 'done') faults.push(`the import is ${done.state}`);
    const sorted = waits.map(({ time }) => time).sort((a, b) => a - b);
    const at = (share: number): number =>
      sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
    const byPath = [...new Set(waits.map(({ path }) => path))].map((path) => {
      const times = waits.flatMap((one) => (one.path === path ? [one.time] : [])).sort((a, b) => a - b);
      return { path, p95: times[Math.floor(0.95 * times.length)] };
    });
    if (at(0.95) > 1000) faults.push(`95 in 100 waited up to ${at(0.95).toFixed(0)} ms`);
    return {
      readers,
      reads: sorted.length,
      median: at(0.5),
      p95: at(0.95),
      longest: at(1),
      slowest: byPath
        .sort((a, b) => b.p95 - a.p95)
        .slice(0, 4)
        .map(({ path, p95 }) => `${path} ${p95.toFixed(0)} ms`),
      importSeconds: (performance.now() - begun) / 1000,
      faults,
    };
  } finally {
    await app.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** People read, and files come and go, for so many minutes. */
export async function soak(port: number, minutes: number): Promise<Soaked> {
  const folder = mkdtempSync(join(tmpdir(), 'pebble-soak-'));
  const app = await Served.start(folder, port);
  const faults: string[] = [];
  const memory: number[] = [];
  let requests = 0;
  try {
    const prepared = await prepare(app);
    const file = join(folder, 'posts.csv');
    writePosts(file, 3000);
    const posts = readFileSync(file);
    const until = Date.now() + minutes * 60_000;
    const reader = async (number: number): Promise<void> => {
      const paths = pages(prepared);
      for (let i = number; Date.now() < until; i++) {
        const { status } = await app.ask('GET', paths[i % paths.length]);
        requests++;
        if (status !== 200) faults.push(`${status} ${paths[i % paths.length]}`);
        await pause(150);
      }
    };
    const worker = async (): Promise<void> => {
      while (Date.now() < until) {
        const { id: study } = await app.succeed<{ id: string }>('POST', '/studies', { name: 'Short' });
        const { body } = await app.send<UploadAnswer>(study, 'posts.csv', posts);
        const [{ id, preview }] = body.uploads;
        const step = (kind: string, parameters: object): Promise<Step> =>
          app.succeed<Step>('POST', `/studies/${study}/steps`, { kind, parameters });
        await step('import-source', { upload: id, file: 'posts.csv', name: 'a', reading: preview.reading });
        const weave = { what: 'accounts', kinds: ['reply', 'mention'] };
        const woven = await step('weave', { name: 'a', weave });
        const network = woven.result?.['network'];
        await step('group-nodes', { network, name: 'g', settings: { method: 'leiden' } });
        await app.ask('GET', `/studies/${study}/networks/${String(network)}/export/graphml`);
        await step('delete-network', { network });
        await app.ask('DELETE', `/studies/${study}`);
        requests += 8;
      }
    };
    const watch = setInterval(() => app.isAlive && memory.push(app.memory), 1000);
    const all = [...Array.from({ length: 8 }, (_, i) => reader(i)), worker()];
    await Promise.all(all).catch((error: unknown) => faults.push(String(error)));
    clearInterval(watch);
    const most = (from: number, to: number): number =>
      Math.max(...memory.slice(Math.floor(from * memory.length), Math.ceil(to * memory.length)));
    const [early, late] = [most(0.25, 0.5), most(0.75, 1)];
    if (late > 900) faults.push(`the process held ${late.toFixed(0)} MB`);
    if (late > early * 1.15) faults.push(`memory grew from ${early.toFixed(0)} to ${late.toFixed(0)} MB`);
    if (app.output) faults.push(`the application said: ${app.output}`);
    return { minutes, requests, early, late, most: most(0, 1), faults };
  } finally {
    await app.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
