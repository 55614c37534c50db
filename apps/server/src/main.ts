import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { readConfig } from './config';
import type { Logger } from 'pino';
import { damageOf } from './files/damage';
import { faultOf } from './files/log';
import { start } from './start';

const here = dirname(fileURLToPath(import.meta.url));
const web = join(here, '../../web/dist/browser');

// What nobody foresaw ends one request or one step at most: what is finished is in the database, and is whole.
let log: Logger | null = null;
for (const event of ['uncaughtException', 'unhandledRejection'] as const)
  process.on(event, (error: unknown) => {
    console.error('Something went wrong that was not expected:', error);
    log?.error(faultOf(error), 'Something went wrong that was not expected.');
  });

// What is written is for whoever started it alone.
process.umask(0o077);

try {
  const config = readConfig(process.env, existsSync(web) ? web : null, {
    standins: !process.argv.includes('--no-standins'),
  });
  const running = await start(config, {
    demo: !process.argv.includes('--empty'),
    workerFile: join(here, 'runner/thread.cjs'),
    // Two read while another runs a step.
    warm: 3,
  });
  log = running.log;
  console.log(
    `Pebble Thread is ready: ${running.address}/?key=${running.key}\nThe key in this address opens it in your browser; keep it to yourself.\nData folder: ${config.dataFolder}\nCtrl+C ends it.`,
  );
  let closing = false;
  const stop = (): void => {
    if (closing) return;
    closing = true;
    void running.close().then(() => process.exit(0));
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
} catch (error) {
  const code = (error as { code?: string }).code;
  const reason =
    code === 'EADDRINUSE'
      ? 'The port is in use. End the other program, or choose another port with PORT=4621.'
      : (damageOf(error)?.message ?? (error instanceof Error ? error.message : String(error)));
  console.error(`Pebble Thread cannot start. ${reason}`);
  process.exit(1);
}
