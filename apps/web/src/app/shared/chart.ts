import {
  ChangeDetectionStrategy,
  Component,
  effect,
  type ElementRef,
  inject,
  input,
  type OnDestroy,
  output,
  viewChild,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { BarChart, HeatmapChart, LineChart, SankeyChart, ScatterChart } from 'echarts/charts';
import {
  BrushComponent,
  DataZoomComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TooltipComponent,
  VisualMapComponent,
} from 'echarts/components';
import { type EChartsCoreOption, type EChartsType, init, use } from 'echarts/core';
import { LabelLayout } from 'echarts/features';
import { CanvasRenderer } from 'echarts/renderers';
import { PAPER } from '@pebble/core/first';
import { saveChart, type ChartFormat, type ChartRows } from './save-chart';
import { ThemeChoice } from './theme';

use([
  BarChart,
  HeatmapChart,
  LineChart,
  SankeyChart,
  ScatterChart,
  VisualMapComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TooltipComponent,
  BrushComponent,
  DataZoomComponent,
  LabelLayout,
  CanvasRenderer,
]);

/** A chart that follows its size and the theme. */
@Component({
  selector: 'pt-chart',
  imports: [MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="frame">
      @if (rows(); as r) {
        <span class="save" role="group" aria-label="Save the chart">
          @for (format of formats; track format) {
            <button matButton (click)="save(format, r)">{{ format }}</button>
          }
        </span>
      }
      <div class="drawing" #host role="img" [attr.aria-label]="label()"></div>
    </div>
  `,
  styles: `
    :host {
      display: block;
      width: 100%;
      height: 100%;
    }
    /* Its own box, since those who place the chart say how it is displayed. */
    .frame {
      display: flex;
      flex-direction: column;
      width: 100%;
      height: 100%;
    }
    .drawing {
      width: 100%;
      flex: 1;
      min-height: 0;
    }
    .save {
      align-self: flex-end;
      font-size: 12px;
      line-height: 1;
    }
  `,
})
export class Chart implements OnDestroy {
  /** Made anew when the theme changes; given the colours of writing and lines. */
  readonly options = input.required<EChartsCoreOption>();
  readonly label = input.required<string>();
  /** The rows that the chart shows, the first naming the columns; where they are given, the chart can be saved. */
  readonly rows = input<ChartRows | null>(null);
  /** What was clicked, by its place in the data. */
  readonly picked = output<{ readonly dataIndex: number; readonly data: unknown }>();
  protected readonly formats: readonly ChartFormat[] = ['SVG', 'PNG', 'CSV'];
  /** Indices of the categories that were brushed, first and last; null when the brush was taken away. */
  readonly brushed = output<readonly [number, number] | null>();
  private readonly host = viewChild.required<ElementRef<HTMLDivElement>>('host');
  private readonly theme = inject(ThemeChoice);
  private chart: EChartsType | null = null;
  private readonly watcher = new ResizeObserver(() => this.chart?.resize());

  constructor() {
    effect(() => {
      const element = this.host().nativeElement;
      const map = this.theme.map();
      if (!this.chart) this.start(element);
      this.chart!.setOption(this.whole(map.soft), { notMerge: true });
      if ('brush' in this.options()) {
        this.chart!.dispatchAction({
          type: 'takeGlobalCursor',
          key: 'brush',
          brushOption: { brushType: 'lineX', brushMode: 'single' },
        });
      }
    });
  }

  protected save(format: ChartFormat, rows: ChartRows): void {
    void saveChart(format, this.label(), this.whole(PAPER.soft), rows);
  }

  private whole(colour: string): EChartsCoreOption {
    return {
      textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable', color: colour },
      animation: false,
      ...this.options(),
    };
  }

  ngOnDestroy(): void {
    this.watcher.disconnect();
    this.chart?.dispose();
  }

  private start(element: HTMLDivElement): void {
    this.chart = init(element, null, { renderer: 'canvas' });
    this.watcher.observe(element);
    this.chart.on('click', ({ dataIndex, data }) => this.picked.emit({ dataIndex, data }));
    this.chart.on('brushEnd', (event: unknown) => {
      const [area] = (event as { areas: { coordRange?: [number, number] }[] }).areas;
      this.brushed.emit(area?.coordRange ?? null);
    });
  }
}
