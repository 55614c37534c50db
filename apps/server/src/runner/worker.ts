import { fileURLToPath } from 'node:url';
import type { MessagePort } from 'node:worker_threads';
import { connect, type Store } from '../db/open';
import { QueryError } from '@pebble/core';
import { execute, type Outcome, type Task } from './execute';
import { readers, type ReadName, type Reads } from './reads';

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

/** An error that crosses from a thread keeps its message and loses its kind; what a search lacks is told as a value. */
export interface ReadAnswer<T> {
  readonly value?: T;
  readonly queryError?: { message: string; place: number };
}

/** Reads only. */
export async function read<N extends ReadName>({
  folder,
  name,
  study,
  asks,
}: {
  folder: string;
  name: N;
  study: string;
  asks: Reads[N]['asks'];
}): Promise<ReadAnswer<Reads[N]['gives']>> {
  try {
    return { value: await readers[name](storeFor(folder), study, asks) };
  } catch (error) {
    if (error instanceof QueryError) return { queryError: { message: error.bare, place: error.place } };
    throw error;
  }
}
