import type { Moment } from '@pebble/contract';

/**
 * Moments as lines across a chart whose columns are parts of time, for a series of it; nothing where none falls into it.
 * @param starts of the columns, ascending, in milliseconds since 1970. @param end of the last one. @param isUpsideDown whether the axis of values grows downwards
 */
export function momentMarks(
  moments: readonly Moment[],
  starts: readonly number[],
  end: number,
  colour: string,
  isUpsideDown = false,
): { readonly markLine?: object } {
  const marks = moments.flatMap(({ time, name }) => {
    const at = columnOf(time, starts, end);
    return at === null ? [] : [{ xAxis: at, name }];
  });
  if (marks.length === 0) return {};
  return {
    markLine: {
      symbol: 'none',
      silent: true,
      animation: false,
      data: marks,
      lineStyle: { color: colour, type: 'solid', width: 1, opacity: 0.8 },
      label: {
        formatter: '{b}',
        position: isUpsideDown ? 'start' : 'end',
        rotate: 0,
        color: colour,
        fontSize: 11,
        distance: 3,
      },
    },
  };
}

/** The column that a moment falls into; null for one that is outside. */
export function columnOf(time: number, starts: readonly number[], end: number): number | null {
  if (starts.length === 0 || time < starts[0] || time >= end) return null;
  return starts.filter((start) => start <= time).length - 1;
}
