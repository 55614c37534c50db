import { parentPort, workerData } from 'node:worker_threads';
import { UnreadableFile } from '@pebble/core/files';
import { lookAt } from './arrive';
import type { LookAnswer, LookJob } from './look';

/** Looks at a workbook in a thread of its own: the library that reads it needs a deep stack, and some seconds. */
const { path, name, chosen } = workerData as LookJob;
const say = (answer: LookAnswer): void => parentPort?.postMessage(answer);
lookAt(path, name, chosen).then(
  (preview) => say({ preview }),
  (error: unknown) =>
    say({
      message: error instanceof Error ? error.message : String(error),
      row: error instanceof UnreadableFile ? error.row : null,
      isUnreadable: error instanceof UnreadableFile,
    }),
);
