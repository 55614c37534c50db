import type { Moment, OverTime } from '@pebble/contract';
import { counted } from '@pebble/core/first';
import type { EChartsCoreOption } from 'echarts/core';
import { groupColour } from '../common/group-colour';
import { momentMarks } from '../../shared/moment-marks';

/** Lines of a chart; more could not be told apart. */
export const MOST_LINES = 16;

/** What leads in each slice, as lines of ranks: the first on top. */
export function ranksOptions(
  { slices, leading }: OverTime,
  most: number,
  nameOf: (label: string) => string,
  { moments, starts, end }: { moments: readonly Moment[]; starts: readonly number[]; end: number },
  { soft, mark }: { soft: string; mark: string },
): EChartsCoreOption {
  return {
    grid: { left: 34, right: 190, top: 26, bottom: 24 },
    tooltip: {
      confine: true,
      formatter: ({ seriesName, data }: { seriesName: string; data: { words: string } }) =>
        `${seriesName}: ${data.words}`,
    },
    xAxis: {
      type: 'category',
      boundaryGap: false,
      data: slices.map(({ title }) => title),
      axisLabel: { color: soft, hideOverlap: true },
      axisTick: { show: false },
      axisLine: { show: false },
    },
    yAxis: {
      type: 'value',
      inverse: true,
      min: 1,
      max: most + 1,
      interval: 1,
      axisLabel: {
        color: soft,
        fontSize: 11,
        formatter: (rank: number) => (rank > most ? '' : String(rank)),
      },
      splitLine: { lineStyle: { color: soft, opacity: 0.12 } },
    },
    series: leading.slice(0, MOST_LINES).map(({ label, ranks, counts }, i) => ({
      type: 'line',
      name: nameOf(label),
      symbol: 'circle',
      symbolSize: 9,
      lineStyle: { width: 2, color: groupColour(i) },
      itemStyle: { color: groupColour(i) },
      emphasis: { focus: 'series' },
      endLabel: { show: true, formatter: '{a}', color: soft, width: 176, overflow: 'truncate', distance: 8 },
      labelLayout: { moveOverlap: 'shiftY' },
      data: ranks.map((rank, s) => ({
        value: rank !== null && rank <= most ? rank : null,
        words: `${counted(counts[s], 'message')} in ${slices[s].title}, place ${rank ?? '–'}`,
        pick: { row: i, slice: s },
      })),
      ...(i === 0 ? momentMarks(moments, starts, end, mark, true) : {}),
    })),
  };
}
