import type { Scale } from '@pebble/contract';

type Scaled = Exclude<Scale, 'count'>;

/** How weights are scaled, for a sentence. */
export const SCALED: Readonly<Record<Scaled, string>> = {
  newman: 'each shared one of size k counts 1 / (k - 1) (Newman 2001)',
  jaccard: 'the weight is the share of what either has (Jaccard)',
  cosine: 'the weight is what both have over the root of the product of what each has (cosine)',
};

/** What scaled weights mean. */
export const WEIGHED: Readonly<Record<Scaled, string>> = {
  newman:
    'Each shared one counts 1 / (k - 1) where k have it, so that what many share ties less (Newman 2001).',
  jaccard: 'The weight is what both have, over what either has: 1 where they have the same (Jaccard).',
  cosine:
    'The weight is what both have, over the root of the product of what each has: 1 where they are alike.',
};
