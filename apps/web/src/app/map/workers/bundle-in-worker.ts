import type { CourseInput } from '@pebble/core';

/** Begins to draw ties together in a worker, which tells how far it is and at the end how they run. */
export function bundleInWorker(input: CourseInput): Worker {
  const worker = new Worker(new URL('./bundle.worker', import.meta.url), { type: 'module' });
  worker.postMessage(input);
  return worker;
}
