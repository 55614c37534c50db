import { statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { MessagePort } from 'node:worker_threads';
import { connect, studyFile, withLargeCache, type Store } from '../storage/open';
import { tidyUp } from './tidyUp';
import type { Preview, ImportMapping, UploadAnswer } from '@pebble/contract';
import { QueryError } from '@pebble/core';
import { UnreadableFile } from '@pebble/core/files';
import { damageOf } from '../files/damage';
import { inspectUpload, lookAt } from '../intake/inspectUpload';
import type { Threads } from '../operations/step';
import { execute, prepare, type Hooks, type Outcome, type Task } from './execute';
import { CLOSING, GO_ON } from './ending';
import type { Gate } from '../threads/gate';
import { readers, type ReadName, type Reads } from './reads';

/** Programs of threads, beside this one in the built application. */
const threads: Threads = {
  intake: fileURLToPath(new URL('../intake/thread.js', import.meta.url)),
  paths: fileURLToPath(new URL('../measuring/pathsThread.js', import.meta.url)),
};

interface Opened {
  readonly store: Store;
  /** The file that it is a connection to: another one may take its place. */
  readonly file: number;
}

/** Connections that a thread keeps, those used last. */
const KEPT = 4;
const opened = new Map<string, Opened>();

/** One connection for each study and thread. */
async function storeFor(folder: string): Promise<Store> {
  const file = statSync(studyFile(folder)).ino;
  const known = opened.get(folder);
  opened.delete(folder);
  if (known && known.file !== file) await known.store.close();
  const store = known?.file === file ? known.store : connect(folder);
  opened.set(folder, { store, file });
  for (const [oldest, { store: unused }] of opened) {
    if (opened.size <= KEPT) break;
    opened.delete(oldest);
    await unused.close();
  }
  return store;
}

export interface StepJob {
  readonly folder: string;
  readonly task: Omit<Task, 'threads' | 'gate'>;
  readonly port: MessagePort;
  /** Element 0 says whether it is to go on (ending.ts). */
  readonly cancel: Int32Array;
  readonly gate: Gate;
}

/** Does nothing: who gets its answer knows that a thread has started. */
export const ready = (): void => undefined;

/** Runs a step in this thread. */
export const runStep = (job: StepJob): Promise<Outcome> => inTurn(job, execute);

/** Does what a step does before its turn. */
export const prepareStep = (job: StepJob): ReturnType<typeof prepare> => inTurn(job, prepare);

async function inTurn<T>(
  { folder, task, port, cancel, gate }: StepJob,
  work: (store: Store, task: Task, hooks: Hooks, elapsed: () => number) => Promise<T>,
): Promise<T> {
  const started = performance.now();
  let lastSent = 0;
  let lastPhase = '';
  const store = await storeFor(folder);
  const hooks: Hooks = {
    isCancelled: () => Atomics.load(cancel, 0) !== GO_ON,
    isClosing: () => Atomics.load(cancel, 0) === CLOSING,
    progress(phase, share) {
      const now = performance.now();
      if (phase === lastPhase && now - lastSent < 100) return;
      lastSent = now;
      lastPhase = phase;
      port.postMessage({ phase, share });
    },
  };
  const done = await withLargeCache(store, () =>
    work(
      store,
      { ...task, threads, gate },
      hooks,
      () => (task.preparedFor ?? 0) + performance.now() - started,
    ),
  );
  port.close();
  tidyUp();
  return done;
}

/** An error that crosses from a thread keeps its message and loses its kind; those that people can act on are told as values. */
export interface ReadAnswer<T> {
  readonly value?: T;
  readonly queryError?: { message: string; place: number };
  readonly unreadable?: { message: string; row: number | null };
  readonly damaged?: string;
}

async function asResult<T>(work: () => Promise<T>): Promise<ReadAnswer<T>> {
  try {
    return { value: await work() };
  } catch (error) {
    if (error instanceof QueryError) return { queryError: { message: error.bare, place: error.place } };
    if (error instanceof UnreadableFile) return { unreadable: { message: error.message, row: error.row } };
    const damage = damageOf(error);
    if (damage) return { damaged: damage.message };
    throw error;
  }
}

/** What is said again before so many milliseconds are over is left out. */
function everySoOften<A extends unknown[]>(say: (...what: A) => void, pause: number): (...what: A) => void {
  let last = -Infinity;
  return (...what) => {
    const now = performance.now();
    if (now - last < pause) return;
    last = now;
    say(...what);
  };
}

/** Reads only. */
export function read<N extends ReadName>({
  folder,
  name,
  asks,
  port,
}: {
  folder: string;
  name: N;
  asks: Reads[N]['asks'];
  /** Where it is told how far a reading is. */
  port?: MessagePort;
}): Promise<ReadAnswer<Reads[N]['gives']>> {
  const progress = everySoOften((share: number) => port?.postMessage(share), 200);
  return asResult(async () => readers[name](await storeFor(folder), asks, progress)).finally(() => {
    port?.close();
    tidyUp();
  });
}

/** Where it is told that a look at a file gets further. */
interface Looking {
  readonly port: MessagePort;
}

/** A first look at an uploaded file, or at every file of an archive. */
export function inspectFile(
  given: Looking & { folder: string; id: string; name: string; largest: number },
): Promise<ReadAnswer<UploadAnswer>> {
  return looked(given, (further) =>
    inspectUpload(given.folder, given.id, given.name, given.largest, further),
  );
}

export function repreview(
  given: Looking & { path: string; name: string; chosen: Partial<ImportMapping> },
): Promise<ReadAnswer<Preview>> {
  return looked(given, () => lookAt(given.path, given.name, given.chosen));
}

function looked<T>({ port }: Looking, work: (further: () => void) => Promise<T>): Promise<ReadAnswer<T>> {
  const further = everySoOften(() => port.postMessage(null), 500);
  further();
  return asResult(() => work(further)).finally(() => port.close());
}
