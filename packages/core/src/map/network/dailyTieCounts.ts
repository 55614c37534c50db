const DAY = 86_400_000;

/** How many messages each tie has on each day (UTC): rows of a tie stand together, its days ascending. */
export interface DailyTieCounts {
  readonly edge: Uint32Array;
  /** Beginning of the day, milliseconds since 1970. */
  readonly day: Float64Array;
  readonly messages: Uint32Array;
}

/**
 * Counts the messages of ties by day. Undated messages (NaN) stand on no day.
 * @param edge of each message of each tie
 * @param time of it, milliseconds since 1970
 */
export function countTiesByDay(edge: ArrayLike<number>, time: ArrayLike<number>): DailyTieCounts {
  const rows: number[] = [];
  for (let i = 0; i < edge.length; i++) if (!Number.isNaN(time[i])) rows.push(i);
  const dayOf = (i: number): number => Math.floor(time[i] / DAY) * DAY;
  rows.sort((a, b) => edge[a] - edge[b] || time[a] - time[b]);
  const edges: number[] = [];
  const days: number[] = [];
  const messages: number[] = [];
  for (const i of rows) {
    const last = edges.length - 1;
    if (last >= 0 && edges[last] === edge[i] && days[last] === dayOf(i)) messages[last]++;
    else {
      edges.push(edge[i]);
      days.push(dayOf(i));
      messages.push(1);
    }
  }
  return {
    edge: Uint32Array.from(edges),
    day: Float64Array.from(days),
    messages: Uint32Array.from(messages),
  };
}

/** Messages of each tie from one moment on and before another; both are beginnings of days, or null for no bound. */
export function messagesWithin(
  { edge, day, messages }: DailyTieCounts,
  edges: number,
  { from, until }: { readonly from: number | null; readonly until: number | null },
): Float64Array {
  const within = new Float64Array(edges);
  for (let i = 0; i < edge.length; i++)
    if ((from === null || day[i] >= from) && (until === null || day[i] < until))
      within[edge[i]] += messages[i];
  return within;
}

/** Messages of all ties on each day, from the first to the last: the days between have 0. */
export function messagesByDay({ day, messages }: DailyTieCounts): { first: number; messages: Float64Array } {
  let [first, last] = [Infinity, -Infinity];
  for (const one of day) {
    if (one < first) first = one;
    if (one > last) last = one;
  }
  if (first > last) return { first: 0, messages: new Float64Array(0) };
  const all = new Float64Array((last - first) / DAY + 1);
  for (let i = 0; i < day.length; i++) all[(day[i] - first) / DAY] += messages[i];
  return { first, messages: all };
}
