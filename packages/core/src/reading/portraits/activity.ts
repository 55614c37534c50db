import type { ActiveDay } from '@pebble/contract';
import { CLEAR, logLikelihood } from './keyness';
import type { MessageGroups } from './messageGroups';

const DAY = 86_400_000;

/** Days that are told as unusual. */
const MOST_UNUSUAL = 5;

/** When the messages of a group were written. */
export interface Activity {
  /** Days (UTC) with messages of the network, ascending; days without any in between are left out. */
  readonly days: ActiveDay[];
  /** Days on which a clearly larger share of the group's messages falls than of the others', the clearest first; milliseconds since 1970. */
  readonly unusual: number[];
  readonly first: number | null;
  readonly last: number | null;
  readonly undated: number;
}

/** When the messages of each group were written. @param time of messages, milliseconds since 1970; NaN where undated */
export function activityOf(
  groups: MessageGroups,
  messages: Iterable<readonly [message: number, time: number]>,
): Activity[] {
  const whole = new Map<number, number>();
  const own = Array.from({ length: groups.groups }, () => new Map<number, number>());
  const ends = Array.from({ length: groups.groups }, () => ({
    first: Infinity,
    last: -Infinity,
    undated: 0,
  }));
  for (const [message, time] of messages) {
    if (!groups.has(message)) continue;
    const day = Math.floor(time / DAY) * DAY;
    if (!Number.isNaN(time)) whole.set(day, (whole.get(day) ?? 0) + 1);
    for (const g of groups.of(message)) {
      const end = ends[g];
      if (Number.isNaN(time)) end.undated++;
      else {
        end.first = Math.min(end.first, time);
        end.last = Math.max(end.last, time);
        own[g].set(day, (own[g].get(day) ?? 0) + 1);
      }
    }
  }
  const days = [...whole.keys()].sort((a, b) => a - b);
  const all = days.reduce((sum, day) => sum + whole.get(day)!, 0);
  return own.map((counts, g) => {
    const { first, last, undated } = ends[g];
    const dated = groups.sizes[g] - undated;
    return {
      days: days.map((day) => ({ day, messages: counts.get(day) ?? 0, all: whole.get(day)! })),
      unusual: unusualDays(counts, dated, whole, all),
      first: first === Infinity ? null : first,
      last: last === -Infinity ? null : last,
      undated,
    };
  });
}

function unusualDays(
  own: ReadonlyMap<number, number>,
  dated: number,
  whole: ReadonlyMap<number, number>,
  all: number,
): number[] {
  return [...own]
    .map(([day, here]) => {
      const elsewhere = whole.get(day)! - here;
      const isMore = here * (all - dated) > elsewhere * dated;
      const beside = { here, ofHere: dated, elsewhere, ofElsewhere: all - dated };
      return { day, score: isMore ? logLikelihood(beside) : 0 };
    })
    .filter(({ score }) => score >= CLEAR)
    .sort((a, b) => b.score - a.score || a.day - b.day)
    .slice(0, MOST_UNUSUAL)
    .map(({ day }) => day);
}
