import { groupRows } from './rows';

const DAY = 86_400_000;

/**
 * On how many different days (UTC) the rows of each group fall; undated rows fall on none.
 * @param group of each row, below `groups`
 */
export function distinctDays(groups: number, group: Uint32Array, time: ArrayLike<number>): Float64Array {
  const { start, values } = groupRows(groups, group);
  const days = new Float64Array(groups);
  const found: number[] = [];
  for (let g = 0; g < groups; g++) {
    const rows = start[g + 1] - start[g];
    if (rows === 1) {
      days[g] = Number.isNaN(time[values[start[g]]]) ? 0 : 1;
      continue;
    }
    found.length = 0;
    for (let i = start[g]; i < start[g + 1]; i++) {
      const at = time[values[i]];
      if (!Number.isNaN(at)) found.push(Math.floor(at / DAY));
    }
    if (found.length > 1) found.sort((a, b) => a - b);
    for (let i = 0; i < found.length; i++) if (i === 0 || found[i] !== found[i - 1]) days[g]++;
  }
  return days;
}
