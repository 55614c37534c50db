import type { Comparison, Moment } from '@pebble/contract';
import type { EChartsCoreOption } from 'echarts/core';
import { momentMarks } from '../../shared/moment-marks';
import { day } from '../../shared/words';

/** Of A and of B (Okabe & Ito 2008). */
const COLOURS = { a: '#0072B2', b: '#D55E00' } as const;

const DAY = 86_400_000;

/** Messages of both sets, day by day. @param colours of axes and of moments */
export function comparedDays(
  days: Comparison['days'],
  moments: readonly Moment[],
  { soft, mark }: { readonly soft: string; readonly mark: string },
): EChartsCoreOption {
  const starts = days.map((one) => one.day);
  return {
    grid: { left: 34, right: 10, top: 22, bottom: 20 },
    legend: { top: 0, right: 0, textStyle: { color: soft, fontSize: 11 }, itemHeight: 8 },
    tooltip: { trigger: 'axis', confine: true },
    xAxis: {
      type: 'category',
      data: days.map((one) => day(one.day)),
      axisLabel: { color: soft, fontSize: 10, hideOverlap: true },
      axisLine: { lineStyle: { color: soft, opacity: 0.4 } },
      axisTick: { show: false },
    },
    yAxis: { type: 'value', axisLabel: { color: soft, fontSize: 10 }, splitLine: { show: false } },
    series: (['a', 'b'] as const).map((side) => ({
      name: side.toUpperCase(),
      type: 'line',
      symbol: 'none',
      step: 'middle',
      lineStyle: { color: COLOURS[side], width: 1.4 },
      itemStyle: { color: COLOURS[side] },
      data: days.map((one) => one[side]),
      ...(side === 'a' ? momentMarks(moments, starts, starts[starts.length - 1] + DAY, mark) : {}),
    })),
  };
}
