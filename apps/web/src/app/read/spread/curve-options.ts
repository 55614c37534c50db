import type { Moment, Spread } from '@pebble/contract';
import type { EChartsCoreOption } from 'echarts/core';
import { momentMarks } from '../../shared/moment-marks';
import { day, moment } from '../../shared/words';

/** What is new in each hour or day as bars, and accounts that had it until then as a line. */
export function curveOptions(
  { width, start, messages, accounts }: Spread['curve'],
  moments: readonly Moment[],
  { soft, mark }: { readonly soft: string; readonly mark: string },
): EChartsCoreOption {
  const starts = messages.map((_, i) => start + i * width);
  const words = (at: number): string => (width < DAY ? moment(at) : day(at));
  let sum = 0;
  const until = accounts.map((own) => (sum += own));
  return {
    grid: { left: 36, right: 40, top: 24, bottom: 22 },
    legend: { top: 0, left: 0, itemHeight: 8, textStyle: { color: soft, fontSize: 11 } },
    tooltip: { trigger: 'axis', confine: true },
    xAxis: {
      type: 'category',
      data: starts.map(words),
      axisLabel: { color: soft, fontSize: 10, hideOverlap: true },
      axisTick: { show: false },
      axisLine: { lineStyle: { color: soft, opacity: 0.4 } },
    },
    yAxis: [
      { type: 'value', axisLabel: { color: soft, fontSize: 10 }, splitLine: { show: false } },
      { type: 'value', axisLabel: { color: soft, fontSize: 10 }, splitLine: { show: false } },
    ],
    series: [
      {
        type: 'bar',
        name: 'messages',
        barCategoryGap: '10%',
        itemStyle: { color: '#1f6f78' },
        data: messages,
        ...momentMarks(moments, starts, start + messages.length * width, mark),
      },
      {
        type: 'line',
        name: 'accounts until then',
        yAxisIndex: 1,
        symbol: 'none',
        lineStyle: { color: mark, width: 1.6 },
        itemStyle: { color: mark },
        data: until,
      },
    ],
  };
}

const DAY = 86_400_000;
