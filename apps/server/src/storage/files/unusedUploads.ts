import { readdirSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import type { Store } from '../open';

const HOUR = 3_600_000;
/** Milliseconds for which an uploaded file waits for somebody to take it in. */
const WAITS = 24 * HOUR;
/** Milliseconds for which a step that was not done can be run again with the file that it was given. */
const AGAIN = 30 * 24 * HOUR;

/** Names of uploaded files, whole or not; lists of rows that were left out belong to their steps. */
const UPLOAD = /^((?:[0-9a-f]+-)?[0-9a-f]{8}-[0-9a-f-]{27})(?:\.part)?$/;

/** The names of files that were sent to a study and not taken in. */
export function waitingUploads(folder: string): string[] {
  return readdirSync(join(folder, 'uploads')).filter((name) => UPLOAD.test(name));
}

/**
 * Takes away uploaded files that nobody uses any more: those that nobody took in for a day, and those of steps that failed, were cancelled or
 * interrupted a month ago, and of runs of routines that can be gone on with. Returns how many.
 */
export async function clearUnusedUploads(store: Store, now = Date.now()): Promise<number> {
  const folder = join(store.folder, 'uploads');
  const old = waitingUploads(store.folder).filter((name) => {
    const age = now - (statSync(join(folder, name), { throwIfNoEntry: false })?.mtimeMs ?? now);
    return age > WAITS;
  });
  if (old.length === 0) return 0;
  const steps = await store.query
    .selectFrom('step')
    .select('parameters')
    .where('state', '!=', 'done')
    .where('started_at', '>', new Date(now - AGAIN).toISOString())
    .execute();
  const runs = await store.query
    .selectFrom('routine_run')
    .select('answers')
    .where('state', '!=', 'done')
    .where('started_at', '>', new Date(now - AGAIN).toISOString())
    .execute();
  const wanted = [...steps.map(({ parameters }) => parameters), ...runs.map(({ answers }) => answers)].join(
    '\n',
  );
  const unused = old.filter((name) => !wanted.includes(UPLOAD.exec(name)![1]));
  for (const name of unused) rmSync(join(folder, name), { force: true });
  return unused.length;
}
