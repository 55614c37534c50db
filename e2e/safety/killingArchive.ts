import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { OpeningStudy, Step, StudyList } from '@pebble/contract';
import { keptIn, type Kept } from './kept';
import type { Killed } from './killing';
import { prepare } from './prepared';
import { Served } from './served';

/** Kills the application while a study goes into the archive, and while it comes out of it: it is in one of the two, and whole. */
export async function killingArchive(rounds: number, port: number): Promise<Killed> {
  const base = mkdtempSync(join(tmpdir(), 'pebble-prepared-'));
  const first = await Served.start(base, port);
  const { study } = await prepare(first);
  await first.stop();
  const before = keptIn(base);
  const faults: string[] = [];
  let inTheMiddle = 0;
  for (let round = 0; round < rounds; round++) {
    const folder = mkdtempSync(join(tmpdir(), 'pebble-archive-'));
    cpSync(base, folder, { recursive: true });
    try {
      let app = await Served.start(folder, port);
      inTheMiddle += await killedWhile(app, archive(app, study), 250);
      app = await Served.start(folder, port);
      if (!(await isIn(app, study, 'archived'))) {
        if (!(await isIn(app, study, 'studies'))) faults.push('it is neither open nor in the archive');
        await archive(app, study);
      }
      inTheMiddle += await killedWhile(app, openAgain(app, study), 400);
      app = await Served.start(folder, port);
      if (await isIn(app, study, 'archived')) {
        const { state, error } = await openAgain(app, study);
        if (state !== 'done') faults.push(`opening it again is ${state}: ${error}`);
      }
      if (!(await isIn(app, study, 'studies')))
        faults.push(`it is neither in the archive nor open: ${await said(app, study)}`);
      await app.stop();
      const now = keptIn(folder);
      faults.push(...now.faults, ...now.orphans, ...different(now, before));
    } catch (error) {
      faults.push(`round ${round}: ${String(error)}`);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  }
  rmSync(base, { recursive: true, force: true });
  return { kills: 2 * rounds, inTheMiddle, faults: [...new Set(faults)] };
}

const archive = (app: Served, study: string): Promise<Step> =>
  app.succeed<Step>('POST', `/studies/${study}/steps`, { kind: 'archive-study', parameters: {} });

async function openAgain(app: Served, study: string): Promise<Step> {
  const {
    study: id,
    by,
    ...parameters
  } = await app.succeed<OpeningStudy>('POST', `/studies/${study}/open-again`, {});
  return app.succeed<Step>('POST', `/studies/${id}/steps`, { kind: by, parameters });
}

async function killedWhile(app: Served, asked: Promise<Step>, most: number): Promise<number> {
  let isDone = false;
  const done = asked.then(
    () => (isDone = true),
    () => false,
  );
  await new Promise((waited) => setTimeout(waited, Math.random() * most));
  const wasRunning = isDone ? 0 : 1;
  await app.kill();
  await done;
  return wasRunning;
}

async function isIn(app: Served, study: string, where: 'studies' | 'archived'): Promise<boolean> {
  return (await app.succeed<StudyList>('GET', '/studies'))[where].some(
    ({ id, broken }) => id === study && broken === null,
  );
}

/** Where a study is listed, and what is said of it. */
async function said(app: Served, study: string): Promise<string> {
  const list = await app.succeed<StudyList>('GET', '/studies');
  const found = Object.entries(list).flatMap(([where, all]) =>
    all.filter(({ id }) => id === study).map(({ broken }) => `${where}, ${broken}`),
  );
  return found.join('; ') || 'it is not listed';
}

/** What is other than before; in how many pieces the index of the texts lies says nothing. */
function different(now: Kept, before: Kept): string[] {
  return Object.keys({ ...now.rows, ...before.rows })
    .filter((name) => !name.startsWith('message_text_') && now.rows[name] !== before.rows[name])
    .map((name) => `${name}: ${now.rows[name]} instead of ${before.rows[name]}`);
}
