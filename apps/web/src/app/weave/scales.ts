import type { Scale } from '@pebble/contract';

/** How what two nodes share is weighed, in words. */
export const SCALES: readonly (readonly [Scale, string])[] = [
  ['count', 'counted as they are'],
  ['newman', 'less for what many share (Newman)'],
  ['jaccard', 'as a share of what either has (Jaccard)'],
  ['cosine', 'as likeness of what each has (cosine)'],
];
