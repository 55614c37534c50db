import type { MessageSet, Network } from '@pebble/contract';
import { slicesOf, wholeOf } from '../../shared/slices';

/** A comparison that is offered. */
export interface ReadyMade {
  readonly title: string;
  readonly a: MessageSet;
  readonly b: MessageSet;
}

/** Months that are offered at most, and slices. */
const MOST = 24;

/** What changed from one slice to the next, where a network has slices; else from one month to the next. */
export function readyMade(
  networks: readonly Network[],
  open: Network | null,
  from: number | null,
  until: number | null,
): ReadyMade[] {
  const slices = open ? slicesOf(networks, wholeOf(open)) : [];
  const sets =
    slices.length > 1
      ? slices.map(({ id, slice }) => ({
          title: slice!.title,
          set: { what: 'network' as const, network: id },
        }))
      : monthsIn(from, until);
  return sets
    .slice(0, MOST)
    .slice(1)
    .map(({ title, set }, i) => ({ title: `${sets[i].title} beside ${title}`, a: sets[i].set, b: set }));
}

function monthsIn(from: number | null, until: number | null): { title: string; set: MessageSet }[] {
  if (from === null || until === null) return [];
  const months: { title: string; set: MessageSet }[] = [];
  const first = new Date(from);
  for (let i = 0; i < MOST; i++) {
    const start = Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + i, 1);
    if (start > until) break;
    const end = Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + i + 1, 1);
    const title = new Date(start).toLocaleDateString('en-GB', {
      month: 'long',
      year: 'numeric',
      timeZone: 'UTC',
    });
    months.push({ title, set: { what: 'filter', filter: { from: start, until: end } } });
  }
  return months;
}
