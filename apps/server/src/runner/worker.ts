import { fileURLToPath } from 'node:url';
import type { MessagePort } from 'node:worker_threads';
import { connect, type Store } from '../db/open';
import { estimateAccounts } from '@pebble/core';
import type { AccountWeave, WeaveEstimate } from '@pebble/contract';
import { readAddresses } from '../db/addresses';
import { execute, type Outcome, type Task } from './execute';

/** The program of the thread that reads files, beside this one in the built application. */
const intakeFile = fileURLToPath(new URL('../intake/thread.js', import.meta.url));

const stores = new Map<string, Store>();

/** One connection for each data folder and thread. */
function storeFor(folder: string): Store {
  let store = stores.get(folder);
  if (!store) stores.set(folder, (store = connect(folder)));
  return store;
}

export interface StepJob {
  readonly folder: string;
  readonly task: Omit<Task, 'intakeFile'>;
  readonly port: MessagePort;
  /** Element 0 becomes 1 when the researcher cancels. */
  readonly cancel: Int32Array;
}

/** Runs a step in this thread. */
export async function runStep({ folder, task, port, cancel }: StepJob): Promise<Outcome> {
  const started = performance.now();
  let lastSent = 0;
  let lastPhase = '';
  const outcome = await execute(
    storeFor(folder),
    { ...task, intakeFile },
    {
      isCancelled: () => Atomics.load(cancel, 0) === 1,
      progress(phase, share) {
        const now = performance.now();
        if (phase === lastPhase && now - lastSent < 100) return;
        lastSent = now;
        lastPhase = phase;
        port.postMessage({ phase, share });
      },
    },
    () => performance.now() - started,
  );
  port.close();
  return outcome;
}

/** Reads only: how large a weave would be. */
export function estimate({
  folder,
  study,
  weave,
}: {
  folder: string;
  study: string;
  weave: AccountWeave;
}): WeaveEstimate {
  return estimateAccounts(readAddresses(storeFor(folder), study), weave);
}
