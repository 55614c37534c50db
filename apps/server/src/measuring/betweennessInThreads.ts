import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import {
  type Betweenness,
  type BetweennessOptions,
  chooseStarts,
  type Csr,
  finishBetweenness,
  partsOf,
  type PathSums,
} from '@pebble/core';
import type { Gate } from '../threads/gate';

export interface PathsJob {
  /** Paths in steps, or by the length that weights give. */
  readonly kernel: 'steps' | 'length';
  readonly rows: Csr;
  readonly parts: readonly Uint32Array[];
  /** The part that is to be taken next, and the start nodes that are done. */
  readonly counters: Int32Array;
  /** Where the threads let others pass; null where somebody waits for them. */
  readonly gate: Gate | null;
}

export interface FoundPaths extends PathSums {
  readonly part: number;
}

/** Time between two looks at how far the threads are, in milliseconds. */
const LOOK = 150;

/**
 * Betweenness with the start nodes shared out over threads, one for each core. The sums are the same to the last bit as in one thread. What
 * `progress` throws ends the threads at once.
 */
export async function betweennessInThreads(
  threadFile: string,
  kernel: PathsJob['kernel'],
  rows: Csr,
  options: BetweennessOptions & {
    /** Threads at most; one for each core where it is left out. */
    readonly most?: number;
    /** Where the threads let others pass. */
    readonly gate?: Gate;
  },
): Promise<Betweenness> {
  const n = rows.nodeCount;
  const starts = chooseStarts(n, options.pivots ?? n, options.seed ?? 1);
  const parts = partsOf(starts);
  const counters = new Int32Array(new SharedArrayBuffer(8));
  const job: PathsJob = { kernel, rows: sharedRows(rows), parts, counters, gate: options.gate ?? null };
  const found: PathSums[] = [];
  const threads = Array.from(
    { length: Math.min(parts.length, options.most ?? availableParallelism()) },
    () => new Worker(threadFile, { workerData: job }),
  );
  let timer: ReturnType<typeof setInterval> | null = null;
  try {
    await new Promise<void>((resolve, reject) => {
      let left = parts.length;
      if (left === 0) resolve();
      for (const thread of threads) {
        thread.on('error', reject);
        thread.on('message', ({ part, sums, squares }: FoundPaths) => {
          found[part] = { sums, squares };
          if (--left === 0) resolve();
        });
      }
      timer = setInterval(() => {
        try {
          options.progress?.(Atomics.load(counters, 1) / Math.max(starts.length, 1));
        } catch (stopped) {
          reject(stopped instanceof Error ? stopped : new Error(String(stopped)));
        }
      }, LOOK);
    });
  } finally {
    if (timer) clearInterval(timer);
    await Promise.all(threads.map((thread) => thread.terminate()));
  }
  return finishBetweenness(n, found, starts.length, options);
}

/** The same rows in memory that all threads see. */
function sharedRows({ nodeCount, offset, neighbour, weight }: Csr): Csr {
  const whole = (values: Uint32Array): Uint32Array => {
    const shared = new Uint32Array(new SharedArrayBuffer(values.byteLength));
    shared.set(values);
    return shared;
  };
  const shared = new Float64Array(new SharedArrayBuffer(weight.byteLength));
  shared.set(weight);
  return { nodeCount, offset: whole(offset), neighbour: whole(neighbour), weight: shared };
}
