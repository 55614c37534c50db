import type { MessageFilter, Timeline, TimelinePart } from '@pebble/contract';
import { sql, type RawBuilder } from 'kysely';
import { withinFilter, type Condition } from './messageFilter';
import type { Store } from './open';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Monday 5 January 1970. */
const MONDAY = 4 * DAY;
/** A chart of more bars says nothing more. */
const MOST_BARS = 400;
/** Of all dated messages so many at either end may lie far off. */
const FAR_SHARE = 0.005;

/** Messages per interval, by choice parted by what they came from or are. A few far dates are set aside, so that the others can be seen. */
export async function readTimeline(
  store: Store,
  filter: MessageFilter,
  by: TimelinePart = 'none',
): Promise<Timeline> {
  const { from: _from, until: _until, ...rest } = filter;
  const conditions = withinFilter(rest);
  const whole = await spanOf(store, conditions);
  if (whole.first === null || whole.last === null)
    return { unit: 'day', starts: [], end: 0, counts: [], parts: [], undated: whole.undated, setAside: null };
  const { first, last } = await nearDates(store, conditions, {
    ...whole,
    first: whole.first,
    last: whole.last,
  });
  const bars = barsFor(first, last);
  const width = bars.unit === 'hour' ? HOUR : DAY;
  const { rows } = await sql<{ slot: number; part: string; count: number }>`
    select floor(m.time * 1.0 / ${width}) as slot, ${PART[by]} as part, count(*) as count from message m
    where ${sql.join(conditions, sql` and `)} and m.time between ${first} and ${last} group by slot, part`.execute(
    store.query,
  );
  const counts = new Array<number>(bars.starts.length).fill(0);
  const parts = new Map<string, number[]>();
  for (const { slot, part, count } of rows) {
    const at = placeOf(bars.starts, slot * width);
    counts[at] += count;
    if (by === 'none') continue;
    let line = parts.get(part);
    if (!line) parts.set(part, (line = new Array<number>(bars.starts.length).fill(0)));
    line[at] += count;
  }
  const aside = whole.dated - counts.reduce((sum, count) => sum + count, 0);
  return {
    ...bars,
    counts,
    parts: largestParts(parts),
    undated: whole.undated,
    setAside: aside > 0 ? { messages: aside, from: whole.first, until: whole.last } : null,
  };
}

interface Span {
  readonly first: number | null;
  readonly last: number | null;
  readonly dated: number;
  readonly undated: number;
}

async function spanOf(store: Store, conditions: readonly Condition[]): Promise<Span> {
  const { rows } = await sql<Span>`
    select min(m.time) as first, max(m.time) as last, count(m.time) as dated, count(*) - count(m.time) as undated
    from message m where ${sql.join([...conditions], sql` and `)}`.execute(store.query);
  return rows[0];
}

/** The span without a few dates that lie further from the others than all of these from each other. */
async function nearDates(
  store: Store,
  conditions: readonly Condition[],
  { first, last, dated }: { readonly first: number; readonly last: number; readonly dated: number },
): Promise<{ first: number; last: number }> {
  const far = Math.floor(dated * FAR_SHARE) + (dated >= 10 ? 1 : 0);
  if (far === 0 || last - first <= MOST_BARS * DAY) return { first, last };
  const at = async (order: 'asc' | 'desc'): Promise<number> => {
    const { rows } = await sql<{ time: number }>`
      select m.time from message m where ${sql.join([...conditions], sql` and `)} and m.time is not null
      order by m.time ${sql.raw(order)} limit 1 offset ${far}`.execute(store.query);
    return rows[0].time;
  };
  const [low, high] = [await at('asc'), await at('desc')];
  const room = Math.max(high - low, DAY);
  const { rows } = await sql<{ first: number; last: number }>`
    select min(m.time) as first, max(m.time) as last from message m
    where ${sql.join([...conditions], sql` and `)} and m.time between ${low - room} and ${high + room}`.execute(
    store.query,
  );
  const near = rows[0];
  return last - first > 4 * Math.max(near.last - near.first, DAY) ? near : { first, last };
}

type Bars = Pick<Timeline, 'unit' | 'starts' | 'end'>;

/** The finest intervals of which some hundred cover a span: hours, days, weeks from Monday, months, years, or several years at once. */
function barsFor(first: number, last: number): Bars {
  const span = last - first;
  const even = (unit: 'hour' | 'day' | 'week', step: number, base: number): Bars => {
    const begin = Math.floor((first - base) / step) * step + base;
    const count = Math.floor((last - begin) / step) + 1;
    return {
      unit,
      starts: Array.from({ length: count }, (_, i) => begin + i * step),
      end: begin + count * step,
    };
  };
  if (span <= 4 * DAY) return even('hour', HOUR, 0);
  if (span < (MOST_BARS - 1) * DAY) return even('day', DAY, 0);
  if (span < (MOST_BARS - 1) * 7 * DAY) return even('week', 7 * DAY, MONDAY);
  const from = new Date(first);
  const until = new Date(last);
  const years = until.getUTCFullYear() - from.getUTCFullYear() + 1;
  const months = years * 12 <= MOST_BARS ? 1 : 12 * Math.ceil(years / MOST_BARS);
  const starts: number[] = [];
  let month = months === 1 ? from.getUTCMonth() : 0;
  for (; starts.length === 0 || beginningOf(from.getUTCFullYear(), month) <= last; month += months)
    starts.push(beginningOf(from.getUTCFullYear(), month));
  return { unit: months === 1 ? 'month' : 'year', starts, end: beginningOf(from.getUTCFullYear(), month) };
}

/** Also of years below 100, which Date.UTC takes for others. */
function beginningOf(year: number, month: number): number {
  return new Date(0).setUTCFullYear(year, month, 1);
}

/** The interval in which a moment lies. */
function placeOf(starts: readonly number[], time: number): number {
  let low = 0;
  let high = starts.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (starts[middle] <= time) low = middle + 1;
    else high = middle;
  }
  return Math.max(0, low - 1);
}

/** What the bars of a time chart are parted by. */
const PART: Readonly<Record<TimelinePart, RawBuilder<string>>> = {
  none: sql<string>`''`,
  kind: sql<string>`m.kind`,
  source: sql<string>`(select name from source where id = m.source_id)`,
  language: sql<string>`coalesce((select language from message_language where message_id = m.id), 'und')`,
};
const MOST_PARTS = 7;

/** The parts with most messages by name; the rest as one. */
function largestParts(parts: ReadonlyMap<string, number[]>): Timeline['parts'] {
  const sum = (counts: readonly number[]): number => counts.reduce((a, b) => a + b, 0);
  const sorted = [...parts]
    .map(([name, counts]) => ({ name, counts }))
    .sort((a, b) => sum(b.counts) - sum(a.counts) || (a.name < b.name ? -1 : 1));
  if (sorted.length <= MOST_PARTS) return sorted;
  const rest = sorted.slice(MOST_PARTS - 1);
  const counts = rest[0].counts.map((_, i) => rest.reduce((all, part) => all + part.counts[i], 0));
  return [...sorted.slice(0, MOST_PARTS - 1), { name: `${rest.length} others`, counts }];
}
