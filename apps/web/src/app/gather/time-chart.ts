import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { MessageFilter, Timeline, TimelinePart } from '@pebble/contract';
import type { EChartsCoreOption } from 'echarts/core';
import { Api } from '../api/api';
import { Chart } from '../shared/chart';
import { latest } from '../shared/latest';
import { momentMarks } from '../shared/moment-marks';
import { Moments } from '../shared/moments';
import { ThemeChoice } from '../shared/theme';
import { counted, day } from '../shared/words';

const WHOLE = '#1F6F78';
/** Okabe & Ito (2008), in an order in which neighbours differ. */
const PART_COLOURS = ['#0072B2', '#E69F00', '#009E73', '#CC79A7', '#56B4E9', '#D55E00', '#8C8C8C'];

/** Messages over time; dragging over it chooses a period. */
@Component({
  selector: 'pt-time-chart',
  imports: [MatInput, MatFormField, Chart, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="soft">
      @if (line(); as l) {
        Messages per {{ l.unit }} (UTC). Drag over the chart to read only that time.
        @if (l.undated) {
          {{ counted(l.undated, 'message') }} without a date.
        }
        @if (l.setAside; as far) {
          <span class="far"
            >{{ counted(far.messages, 'message') }} with far dates set aside: the earliest of all is of
            {{ day(far.from) }}, the latest of {{ day(far.until) }}.</span
          >
        }
      }
      <label>
        parted by
        <mat-form-field><select matNativeControl [ngModel]="by()" (ngModelChange)="by.set($event)">
          <option value="none">nothing</option>
          <option value="source">source</option>
          <option value="kind">kind</option>
          <option value="language">language</option>
        </select></mat-form-field>
      </label>
    </p>
    @if (chart(); as options) {
      <pt-chart
        [options]="options"
        [label]="'Messages per ' + (line()?.unit ?? 'day')"
        (brushed)="brush($event)"
      />
    }
  `,
  styles: `
    :host {
      display: block;
      flex: none;
    }
    p {
      display: flex;
      gap: 14px;
      align-items: center;
      font-size: 13px;
    }
    label {
      margin-left: auto;
    }
    pt-chart {
      display: block;
      height: 126px;
    }
  `,
})
export class TimeChart {
  readonly study = input.required<string>();
  /** Messages of the study; another number reads the chart anew. */
  readonly messages = input.required<number>();
  readonly filter = input.required<MessageFilter>();
  readonly periodChosen = output<Pick<MessageFilter, 'from' | 'until'>>();
  private readonly api = inject(Api);
  private readonly theme = inject(ThemeChoice);
  private readonly moments = inject(Moments);
  protected readonly by = signal<TimelinePart>('none');
  protected readonly counted = counted;
  protected readonly day = day;

  private readonly asked = computed(() => {
    const { from: _from, until: _until, sample: _sample, seed: _seed, ...rest } = this.filter();
    return { study: this.study(), messages: this.messages(), query: { ...rest, by: this.by() } };
  });
  protected readonly line = latest(this.asked, ({ study, query }) => this.api.timeline({ study }, query));
  protected readonly chart = computed<EChartsCoreOption | null>(() => {
    const line = this.line();
    if (!line || line.starts.length === 0) return null;
    const colours = this.theme.map();
    const { from, until } = this.filter();
    const inside = (start: number): boolean =>
      from === undefined || until === undefined || (start >= from && start < until);
    const bars = (name: string, counts: readonly number[], colour: string): object => ({
      type: 'bar',
      stack: 'messages',
      name,
      barCategoryGap: '15%',
      data: counts.map((value, i) => ({
        value,
        itemStyle: {
          color: inside(line.starts[i]) ? colour : colours.soft,
          opacity: inside(line.starts[i]) ? 1 : 0.35,
        },
      })),
    });
    const parts = line.parts.length > 0 ? line.parts : [{ name: 'messages', counts: line.counts }];
    return {
      grid: {
        left: 44,
        right: line.parts.length > 0 ? 190 : 10,
        top: this.moments.all().length > 0 ? 18 : 10,
        bottom: 22,
      },
      legend: {
        show: line.parts.length > 0,
        orient: 'vertical',
        right: 0,
        top: 4,
        itemHeight: 8,
        itemGap: 3,
        textStyle: { color: colours.soft, width: 140, overflow: 'truncate' },
        data: line.parts.map(({ name }, i) => ({ name, itemStyle: { color: PART_COLOURS[i] } })),
      },
      tooltip: { trigger: 'axis', axisPointer: { type: 'shadow' } },
      brush: {
        xAxisIndex: 0,
        brushStyle: { color: 'rgba(180,81,47,0.12)', borderColor: colours.mark },
        throttleType: 'debounce',
        throttleDelay: 200,
        toolbox: [],
      },
      toolbox: { show: false },
      xAxis: {
        type: 'category',
        data: line.starts.map((start) => startLabel(line.unit, start)),
        axisLine: { lineStyle: { color: colours.soft } },
        axisTick: { show: false },
        axisLabel: { color: colours.soft, hideOverlap: true },
      },
      yAxis: {
        type: 'value',
        splitNumber: 2,
        axisLabel: { color: colours.soft },
        splitLine: { lineStyle: { color: colours.soft, opacity: 0.18 } },
      },
      series: parts.map(({ name, counts }, i) => ({
        ...bars(name, counts, line.parts.length > 0 ? PART_COLOURS[i] : WHOLE),
        ...(i === 0 ? momentMarks(this.moments.all(), line.starts, line.end, colours.mark) : {}),
      })),
    };
  });

  protected brush(range: readonly [number, number] | null): void {
    const line = this.line();
    if (!line) return;
    if (!range) {
      this.periodChosen.emit({});
      return;
    }
    const first = Math.max(0, Math.round(range[0]));
    const last = Math.min(line.starts.length - 1, Math.round(range[1]));
    this.periodChosen.emit({ from: line.starts[first], until: line.starts[last + 1] ?? line.end });
  }
}

function startLabel(unit: Timeline['unit'], start: number): string {
  switch (unit) {
    case 'hour':
      return new Date(start).toISOString().slice(5, 16).replace('T', ' ');
    case 'year':
      return String(new Date(start).getUTCFullYear());
    case 'month':
      return day(start).replace(/^\d+ /, '');
    default:
      return day(start);
  }
}
