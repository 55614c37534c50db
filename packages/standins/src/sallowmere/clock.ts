import type { Random } from '@pebble/core';

const DAY = 86_400_000;
/** 1 March 2026 to 31 May 2026, UTC. */
export const FIRST_DAY = Date.UTC(2026, 2, 1);
export const DAYS = 92;
export const POWER_FAILURE = Date.UTC(2026, 4, 9, 21, 40);

/** How busy each day is: the hearing, the vote and the power failure stand out. */
function busyness(day: number): number {
  const peak = (at: number, height: number, width: number): number =>
    height / (1 + ((day - at) / width) ** 2);
  const weekend = [0, 6].includes(new Date(FIRST_DAY + day * DAY).getUTCDay()) ? 0.8 : 1;
  return weekend * (1 + 0.006 * day + peak(23, 4.5, 1.1) + peak(58, 5, 1.2) + peak(69, 6, 0.9));
}

/** Share of the messages of a day in each hour, UTC: evenings most. */
const HOURLY = [5, 4, 2, 1, 1, 2, 3, 5, 6, 6, 6, 6, 7, 6, 6, 6, 7, 8, 10, 12, 13, 14, 13, 9];

/** Moments of all messages, ascending, in whole seconds. */
export function moments(count: number, chance: Random): number[] {
  const days = Array.from({ length: DAYS }, (_, day) => busyness(day));
  const total = days.reduce((a, b) => a + b, 0);
  const hours = HOURLY.reduce((a, b) => a + b, 0);
  const pick = (weights: readonly number[], sum: number): number => {
    let left = chance.real() * sum;
    const i = weights.findIndex((weight) => (left -= weight) < 0);
    return i < 0 ? weights.length - 1 : i;
  };
  const times = Array.from({ length: count }, () => {
    const hour = FIRST_DAY + pick(days, total) * DAY + pick(HOURLY, hours) * 3_600_000;
    return hour + chance.below(3600) * 1000;
  });
  return times.sort((a, b) => a - b);
}
