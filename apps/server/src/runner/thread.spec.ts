import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { buildThreads, workerFile } from '../testing/application';

const run = promisify(execFile);

/** Runs a script in a process of its own, which a thread may end; gives what it printed. */
const inProcess = async (script: string): Promise<string> =>
  (await run(process.execPath, ['-e', script, workerFile])).stdout.trim();

describe('a thread of the pool', () => {
  beforeAll(buildThreads, 60_000);

  it('offers all that the program of the threads exports', async () => {
    const [offered, exported] = JSON.parse(
      await inProcess(`
        const entry = require(process.argv[1]);
        const program = require('node:path').join(process.argv[1], '../worker.js');
        import(program).then((all) => {
          const { default: ready, ...offered } = entry;
          console.log(JSON.stringify([Object.keys(offered).sort(), Object.keys(all).sort()]));
        });`),
    ) as [string[], string[]];
    expect(offered).toEqual(exported);
    expect(offered).toContain('runStep');
  });

  it('answers the pool when it asks whether it is ready', async () => {
    const printed = await inProcess(`
      const { Piscina } = require('piscina');
      const pool = new Piscina({ filename: process.argv[1], minThreads: 1, maxThreads: 1 });
      pool.run(undefined, { name: 'ready' }).then((answer) => { console.log('ready', answer); return pool.destroy(); });`);
    expect(printed).toBe('ready undefined');
  }, 60_000);

  it('can be ended while it is starting, and the application goes on', async () => {
    const printed = await inProcess(`
      const { Worker } = require('node:worker_threads');
      const wait = (time) => new Promise((done) => setTimeout(done, time));
      (async () => {
        for (let time = 100; time < 1300; time += 100) {
          const thread = new Worker(process.argv[1]);
          await wait(time);
          await thread.terminate();
        }
        console.log('still here');
      })();`);
    expect(printed).toBe('still here');
  }, 60_000);
});
