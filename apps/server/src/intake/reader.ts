import { on } from 'node:events';
import { Worker } from 'node:worker_threads';
import type { ImportMapping } from '@pebble/contract';
import { formatCount } from '@pebble/core';
import { StepRefused } from '../errors/stepErrors';
import type { MessageBatch } from './batch';

/** Batches that may wait to be stored before reading pauses; it bounds the memory. */
export const MOST_WAITING = 16;

export interface IntakeFile {
  readonly path: string;
  /** What it is called to people. */
  readonly file: string;
  readonly reading: ImportMapping;
}

/** What the thread that reads is told. */
export interface IntakeJob {
  /** Read one after the other. */
  readonly files: readonly IntakeFile[];
  readonly mostRows: number;
  /** Element 0 counts the batches that were stored. */
  readonly stored: Int32Array;
}

/** What the thread that reads tells. */
export type FromReader =
  | { readonly what: 'batch'; readonly batch: MessageBatch }
  | { readonly what: 'end' }
  | { readonly what: 'too many rows' }
  | { readonly what: 'error'; readonly message: string };

/**
 * Reads files in a thread beside this one and gives what they hold batch by batch, in their order. Throws StepRefused when
 * it has too many rows.
 */
export async function* readBatches(
  threadFile: string,
  job: Omit<IntakeJob, 'stored'>,
): AsyncGenerator<MessageBatch, void> {
  const stored = new Int32Array(new SharedArrayBuffer(4));
  const thread = new Worker(threadFile, { workerData: { ...job, stored } satisfies IntakeJob });
  try {
    for await (const [message] of on(thread, 'message') as AsyncIterable<[FromReader]>) {
      if (message.what === 'end') return;
      if (message.what === 'error') throw new Error(message.message);
      if (message.what === 'too many rows')
        throw new StepRefused(
          `The file has more than ${formatCount(job.mostRows)} rows. Split it and import the parts.`,
          { file: job.files[0].file },
        );
      yield message.batch;
      Atomics.add(stored, 0, 1);
      Atomics.notify(stored, 0);
    }
  } finally {
    await thread.terminate();
  }
}
