import { incivility } from './incivility';
import type { Scorer } from './scorer';
import { tone } from './tone';

export type { Score, ScoreHit, Scorer } from './scorer';

/** Every scorer by its name. */
export const scorers: Readonly<Record<Scorer['name'], Scorer>> = { tone, incivility };
