import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import type { Preview, Reading } from '@pebble/contract';
import { isWorkbook, UnreadableFile } from '@pebble/core/files';
import { readHead } from '../files/textFile';
import { lookAt } from './arrive';
import { WORKBOOK_LIMITS } from './reader';

export interface LookJob {
  readonly path: string;
  readonly name: string;
  readonly chosen?: Partial<Reading>;
}
export type LookAnswer =
  | { readonly preview: Preview }
  | { readonly message: string; readonly row: number | null; readonly isUnreadable: boolean };

/** A first look at an uploaded file. Throws UnreadableFile. */
export type Look = (path: string, name: string, chosen?: Partial<Reading>) => Promise<Preview>;

/**
 * Looks at files; at workbooks, which are read whole, in a thread of their own.
 * @param threadFile the program of that thread
 */
export function looker(threadFile: string): Look {
  return async (path, name, chosen) => {
    if (!isWorkbook(readHead(path).head)) return lookAt(path, name, chosen);
    const thread = new Worker(threadFile, {
      workerData: { path, name, chosen } satisfies LookJob,
      ...WORKBOOK_LIMITS,
    });
    try {
      const [answer] = (await once(thread, 'message')) as [LookAnswer];
      if ('preview' in answer) return answer.preview;
      if (answer.isUnreadable) throw new UnreadableFile(answer.message, answer.row);
      throw new Error(answer.message);
    } finally {
      await thread.terminate();
    }
  };
}
