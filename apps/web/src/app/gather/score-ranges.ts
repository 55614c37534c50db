import type { MessageFilter, Scorer } from '@pebble/contract';

/** Ranges of scores that one reads by. */
interface ScoreRange extends Required<Pick<MessageFilter, 'scored'>> {
  readonly title: string;
  readonly scoreFrom?: number;
  readonly scoreUntil?: number;
}

/** For incivility the thresholds of common practice; for tone the clear words of its list (2 of 5 and more). */
export const SCORE_RANGES: readonly ScoreRange[] = [
  { title: 'scored for tone', scored: 'tone' },
  { title: 'positive in tone', scored: 'tone', scoreFrom: 0.4 },
  { title: 'negative in tone', scored: 'tone', scoreUntil: -0.4 },
  { title: 'scored for incivility', scored: 'incivility' },
  { title: 'uncivil, a wide net', scored: 'incivility', scoreFrom: 0.7 },
  { title: 'uncivil, severe', scored: 'incivility', scoreFrom: 0.9 },
];

export function rangesFor(scorers: readonly Scorer[]): ScoreRange[] {
  return SCORE_RANGES.filter(({ scored }) => scorers.includes(scored));
}
