import { beyondChance, byChance, isEnough, ranksOf, timesAsMuch, trendOf } from './trend';
import type { ThingOverTime } from './thingsOverTime';

export interface RiseLimits {
  /** What fewer authors wrote makes no trend. */
  readonly leastAuthors: number;
  /** Of those that rise, and of those that fall, and ranks of each slice. */
  readonly most: number;
}

interface Slope {
  /** Standard deviations by which its share rises (above 0) or falls. */
  readonly z: number;
  /** Share in the later half over that in the earlier; null where it is in the later alone. */
  readonly times: number | null;
}

export interface RiseAndFall<T> {
  /** The clearest first. */
  readonly rising: (T & Slope)[];
  readonly falling: (T & Slope)[];
  /** How many were tested, how many of these rise or fall, and how many were not, since there are too few of them or of their authors. */
  readonly tested: number;
  readonly clear: number;
  readonly tooFew: number;
}

/** Of what is told to rise or fall at most this share does so by chance alone. */
export const FALSE_SHARE = 0.01;

/** What takes a rising or a falling share of the slices, beyond chance (see `trendOf`, `beyondChance`). @param totals of the slices */
export function riseAndFall<T extends ThingOverTime>(
  things: readonly T[],
  totals: readonly number[],
  { leastAuthors, most }: RiseLimits,
): RiseAndFall<T> {
  const tested = things.filter(
    ({ counts, authors }) => authors >= leastAuthors && isEnough({ counts, totals }),
  );
  const z = tested.map(({ counts }) => trendOf({ counts, totals }));
  const isClear = beyondChance(
    z.map((one) => byChance(one)),
    FALSE_SHARE,
  );
  const clear = tested.flatMap((thing, i): (T & Slope)[] => {
    if (!isClear[i]) return [];
    const times = timesAsMuch({ counts: thing.counts, totals });
    return [{ ...thing, z: z[i], times: Number.isFinite(times) ? times : null }];
  });
  const clearest = (sign: number): (T & Slope)[] =>
    clear
      .filter((one) => sign * one.z > 0)
      .sort((a, b) => sign * (b.z - a.z) || (a.label < b.label ? -1 : 1))
      .slice(0, most);
  return {
    rising: clearest(1),
    falling: clearest(-1),
    tested: tested.length,
    clear: clear.length,
    tooFew: things.length - tested.length,
  };
}

interface Ranks {
  /** Slice by slice; null where it is not there. */
  readonly ranks: (number | null)[];
}

/** What is among the first of any slice, with its ranks in all; that with the best ranks first. */
export function leadingOverTime<T extends ThingOverTime>(
  things: readonly T[],
  slices: number,
  most: number,
): (T & Ranks)[] {
  const ranks = Array.from({ length: slices }, (_, s) => ranksOf(things.map(({ counts }) => counts[s])));
  return things
    .map((thing, i) => ({ ...thing, ranks: ranks.map((of) => of[i]) }))
    .filter((one) => one.ranks.some((rank) => rank !== null && rank <= most))
    .sort((a, b) => sumOf(b) - sumOf(a) || (a.label < b.label ? -1 : 1));
}

function sumOf({ counts }: ThingOverTime): number {
  return counts.reduce((sum, count) => sum + count, 0);
}
