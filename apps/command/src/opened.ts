import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { openEngine, readConfig, type Engine } from '@pebble/server/engine';

/** The program of the threads that run steps, built beside this one. */
const WORKER = join(dirname(fileURLToPath(import.meta.url)), '../../server/dist/runner/thread.cjs');

/**
 * Opens the data folder, does something with it, and closes it whatever happens.
 * @param own whether it is a folder of its own, that is gone afterwards
 */
export async function withEngine<T>(own: boolean, work: (engine: Engine) => Promise<T>): Promise<T> {
  const config = readConfig(process.env, null, { standins: false });
  const folder = own ? mkdtempSync(join(tmpdir(), 'pebble-')) : config.dataFolder;
  const engine = await openEngine({ ...config, dataFolder: folder }, { workerFile: WORKER, warm: 1 });
  const stop = (): void => void engine.close().then(() => process.exit(130));
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  try {
    return await work(engine);
  } finally {
    process.off('SIGINT', stop);
    process.off('SIGTERM', stop);
    await engine.close();
    if (own) rmSync(folder, { recursive: true, force: true });
  }
}
