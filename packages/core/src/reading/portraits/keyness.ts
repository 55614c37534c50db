/** How often something stands in the messages here, and in those elsewhere. */
export interface Beside {
  /** Messages here with it, and messages here. */
  readonly here: number;
  readonly ofHere: number;
  /** Messages elsewhere with it, and messages elsewhere. */
  readonly elsewhere: number;
  readonly ofElsewhere: number;
}

/** The log-likelihood from which on a difference is by chance in fewer than one of a thousand cases (chi-squared with one degree of freedom). */
export const CLEAR = 10.83;

/**
 * The log-likelihood of a word in two collections, 0 or more (Dunning 1993, Computational Linguistics 19(1); in the form of Rayson & Garside
 * 2000, Workshop on Comparing Corpora): twice the sum of observed times the logarithm of observed over expected.
 */
export function logLikelihood({ here, ofHere, elsewhere, ofElsewhere }: Beside): number {
  const all = ofHere + ofElsewhere;
  if (all === 0) return 0;
  const part = (found: number, of: number): number =>
    found > 0 ? found * Math.log((found * all) / (of * (here + elsewhere))) : 0;
  // Equal shares give a few units in the last place below 0.
  return Math.max(0, 2 * (part(here, ofHere) + part(elsewhere, ofElsewhere)));
}

/** How many times as large the share here is as the one elsewhere; Infinity where there is none elsewhere, NaN where there is none at all. */
export function timesAsOften({ here, ofHere, elsewhere, ofElsewhere }: Beside): number {
  return here / ofHere / (elsewhere / ofElsewhere);
}
