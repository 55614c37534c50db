const HOUR = 3_600_000;
const DAY = 24 * HOUR;

/** Longer than this is told by days. */
const BY_HOURS = 5 * DAY;
/** More columns say nothing more. */
const MOST = 1500;

/** How something spread in time: columns of an hour or of days, with what is new in each. */
export interface SpreadCurve {
  /** Width of a column in milliseconds. */
  readonly width: number;
  /** The start of the first column, milliseconds since 1970. */
  readonly start: number;
  readonly messages: number[];
  /** Accounts that had it for the first time. */
  readonly accounts: number[];
}

/** @param messages times of all messages. @param first times of the first ones of each account; all in milliseconds since 1970 */
export function spreadCurve(messages: readonly number[], first: readonly number[]): SpreadCurve {
  if (messages.length === 0) return { width: DAY, start: 0, messages: [], accounts: [] };
  const [begin, end] = messages.reduce(
    ([a, b], time) => [Math.min(a, time), Math.max(b, time)],
    [Infinity, -Infinity],
  );
  const width = end - begin <= BY_HOURS ? HOUR : DAY * Math.ceil((end - begin + 1) / DAY / MOST);
  const start = Math.floor(begin / width) * width;
  const columns = Math.floor((end - start) / width) + 1;
  const count = (times: readonly number[]): number[] => {
    const counts = new Array<number>(columns).fill(0);
    for (const time of times) counts[Math.floor((time - start) / width)]++;
    return counts;
  };
  return { width, start, messages: count(messages), accounts: count(first) };
}
