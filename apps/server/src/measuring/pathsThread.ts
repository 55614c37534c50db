import { parentPort, workerData, type MessagePort } from 'node:worker_threads';
import { pathsByLength, pathsInSteps } from '@pebble/core';
import { lettingOthersPass } from '../threads/gate';
import type { FoundPaths, PathsJob } from './betweennessInThreads';

/** Takes parts of the start nodes one after the other, until none is left. */
function work(port: MessagePort, { kernel, rows, parts, counters, gate }: PathsJob): void {
  const find = kernel === 'length' ? pathsByLength : pathsInSteps;
  // The thread is ended when the step is cancelled.
  const pass =
    gate &&
    lettingOthersPass(
      gate,
      () => false,
      () => undefined,
    );
  for (let part = Atomics.add(counters, 0, 1); part < parts.length; part = Atomics.add(counters, 0, 1)) {
    let told = 0;
    const found = find(rows, parts[part], (share) => {
      const done = Math.floor(share * parts[part].length);
      Atomics.add(counters, 1, done - told);
      told = done;
      pass?.();
    });
    Atomics.add(counters, 1, parts[part].length - told);
    port.postMessage({ part, ...found } satisfies FoundPaths);
  }
}

if (parentPort) work(parentPort, workerData as PathsJob);
