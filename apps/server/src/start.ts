import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino, type Logger } from 'pino';
import { createApp } from './app';
import { Collector } from './collect/collector';
import type { Config } from './config';
import { overdue } from './storage/deleted';
import { openEngine } from './engine';
import type { StudyFolders } from './storage/studyFolders';
import { loadDemo } from './demo';
import { accessKey } from './files/accessKey';
import { clearUnusedUploads } from './storage/files/unusedUploads';
import type { Runner } from './runner/runner';
import { StandingRoutines } from './routines/standing';
import type { Scratch } from './routines/verify';
import { startStandins, type RunningStandins } from './standins';

export interface Running {
  readonly address: string;
  /** What a request must bring to be answered. */
  readonly key: string;
  /** Where what nobody expected is written down. */
  readonly log: Logger;
  close(): Promise<void>;
}

/** Opens the data folder, starts the threads and the web server. */
export async function start(
  config: Config,
  options: { demo: boolean; workerFile: string; log?: Logger; warm?: number },
): Promise<Running> {
  const told = options.log ?? pino({ level: 'warn' });
  const engine = await openEngine(config, options);
  const { studies, runner, routines, log } = engine;
  const key = accessKey(config.dataFolder);
  if (options.demo && studies.isEmpty) await loadDemo(studies, runner);
  await runner.ready();
  const standins = await standinsOf(config, told);
  const collector = new Collector(studies, runner, standins?.services ?? []);
  const standing = new StandingRoutines(studies, runner, routines, (...asked) => collector.command(...asked));
  const scratch = (dataFolder: string): Promise<Scratch> =>
    openEngine({ ...config, dataFolder }, { workerFile: options.workerFile, log: told });
  const app = createApp({ config, key, studies, runner, routines, standing, scratch, collector, log });
  const server = await new Promise<Server>((resolve, reject) => {
    const listening = app.listen(config.port, config.host, (error?: Error) =>
      error ? reject(error) : resolve(listening),
    );
  });
  await runner.resume();
  const tidying = setInterval(() => void tidyUp(studies, runner).catch(() => 0), HOUR).unref();
  void tidyUp(studies, runner).catch(() => 0);
  await collector.resumeAll();
  await standing.start();
  const { port } = server.address() as AddressInfo;
  return {
    address: `http://${config.host.includes(':') ? `[${config.host}]` : config.host}:${port}`,
    key,
    log,
    async close() {
      clearInterval(tidying);
      const closed = new Promise((resolve) => server.close(resolve));
      server.closeAllConnections();
      await closed;
      const stood = standing.close();
      await collector.close();
      await standins?.close();
      await engine.close();
      await stood;
    },
  };
}

const HOUR = 3_600_000;

/** Takes away what nobody uses any more, and what was deleted long ago. */
async function tidyUp(studies: StudyFolders, runner: Runner): Promise<void> {
  for (const id of studies.overdue()) await runner.alone(id, () => studies.removeFolder(id));
  for (const store of studies) {
    await clearUnusedUploads(store);
    const parameters = await overdue(store);
    if (parameters) await runner.submit(store.study, { kind: 'remove-for-good', parameters });
  }
}

/** The simulated services; without them when their port is taken, which is said. */
async function standinsOf({ standinsPort }: Config, log: Logger): Promise<RunningStandins | null> {
  if (standinsPort === null) return null;
  try {
    return await startStandins(standinsPort);
  } catch (error) {
    log.warn(
      `The simulated services could not be started on port ${standinsPort} (${String(error)}); everything else works.`,
    );
    return null;
  }
}
