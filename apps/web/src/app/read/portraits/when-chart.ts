import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { FullPortrait } from '@pebble/contract';
import { counted } from '@pebble/core/first';
import type { EChartsCoreOption } from 'echarts/core';
import { Chart } from '../../shared/chart';
import { momentMarks } from '../../shared/moment-marks';
import { Moments } from '../../shared/moments';
import { ThemeChoice } from '../../shared/theme';
import { day } from '../../shared/words';
import type { Evidence } from '../common/evidence';

const DAY = 86_400_000;

/** When a group was active, beside the whole: shares of the messages of each, day by day. */
@Component({
  selector: 'pt-when-chart',
  imports: [Chart],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: '../common/cells.scss',
  template: `
    @if (portrait().days.length > 0) {
      <pt-chart
        [options]="options()"
        [label]="'Messages per day of ' + title() + ', and of all as a line'"
        (picked)="open(portrait().days[$event.dataIndex].day)"
      />
    }
    @if (portrait().unusual.length > 0) {
      <p>
        unusually many on
        @for (one of unusual(); track one) {
          <button class="evidence" [attr.aria-label]="'Read the messages of ' + day(one)" (click)="open(one)">
            {{ day(one) }}
          </button>
        }
      </p>
    }
    @if (portrait().undated > 0) {
      <p class="faint">{{ undated() }} without a date</p>
    }
  `,
  styles: `
    pt-chart {
      display: block;
      height: 84px;
    }
  `,
})
export class WhenChart {
  readonly portrait = input.required<FullPortrait>();
  readonly title = input.required<string>();
  readonly opened = output<Evidence>();
  private readonly theme = inject(ThemeChoice);
  private readonly moments = inject(Moments);
  protected readonly day = day;
  protected readonly undated = computed(() => counted(this.portrait().undated, 'message'));
  protected readonly unusual = computed(() => [...this.portrait().unusual].sort((a, b) => a - b));
  protected readonly options = computed((): EChartsCoreOption => {
    const { soft, mark } = this.theme.map();
    const { days, unusual } = this.portrait();
    const starts = days.map((one) => one.day);
    const [own, all] = days.reduce(([o, a], one) => [o + one.messages, a + one.all], [0, 0]);
    const share = (part: number, whole: number): number => (whole === 0 ? 0 : (100 * part) / whole);
    return {
      grid: { left: 2, right: 2, top: this.moments.all().length > 0 ? 16 : 6, bottom: 18 },
      tooltip: {
        trigger: 'axis',
        confine: true,
        formatter: (points: { dataIndex: number }[]) => {
          const at = days[points[0].dataIndex];
          return `${day(at.day)}: ${counted(at.messages, 'message')} of ${counted(at.all, 'message')}`;
        },
      },
      xAxis: {
        type: 'category',
        data: days.map((one) => day(one.day)),
        axisLabel: { color: soft, fontSize: 10, hideOverlap: true, showMinLabel: true },
        axisTick: { show: false },
        axisLine: { lineStyle: { color: soft, opacity: 0.4 } },
      },
      yAxis: { show: false },
      series: [
        {
          type: 'bar',
          barCategoryGap: '10%',
          data: days.map((one) => ({
            value: share(one.messages, own),
            itemStyle: { color: unusual.includes(one.day) ? '#a5492a' : '#1f6f78' },
          })),
        },
        {
          type: 'line',
          symbol: 'none',
          lineStyle: { color: soft, width: 1 },
          data: days.map((one) => share(one.all, all)),
          ...momentMarks(this.moments.all(), starts, starts[starts.length - 1] + DAY, mark),
        },
      ],
    };
  });

  protected open(at: number): void {
    this.opened.emit({ words: day(at), query: { group: this.portrait().group, day: at } });
  }
}
