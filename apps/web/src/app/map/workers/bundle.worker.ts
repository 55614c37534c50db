/// <reference lib="webworker" />
import { bundling, type CourseInput, type BundledPaths } from '@pebble/core';

/** What is told while ties are drawn together: how far it is, 0 to 1, and at the end how they run. */
export type BundleNews = { readonly share: number } | { readonly courses: BundledPaths };

/** Time between two reports. */
const PAUSE = 100;

addEventListener('message', ({ data }: MessageEvent<CourseInput>) => {
  const run = bundling(data);
  let told = performance.now();
  for (;;) {
    const step = run.next();
    if (step.done) {
      postMessage({ courses: step.value } satisfies BundleNews);
      return;
    }
    const now = performance.now();
    if (now - told < PAUSE) continue;
    told = now;
    postMessage({ share: step.value } satisfies BundleNews);
  }
});
