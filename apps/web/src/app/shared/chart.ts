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
import { BarChart, ScatterChart } from 'echarts/charts';
import {
  BrushComponent,
  DataZoomComponent,
  GridComponent,
  LegendComponent,
  TooltipComponent,
} from 'echarts/components';
import { type EChartsCoreOption, type EChartsType, init, use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { ThemeChoice } from './theme';

use([
  BarChart,
  ScatterChart,
  GridComponent,
  LegendComponent,
  TooltipComponent,
  BrushComponent,
  DataZoomComponent,
  CanvasRenderer,
]);

/** A chart that follows its size and the theme. */
@Component({
  selector: 'pt-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<div #host role="img" [attr.aria-label]="label()"></div>',
  styles: ':host, div { display: block; width: 100%; height: 100%; }',
})
export class Chart implements OnDestroy {
  /** Made anew when the theme changes; given the colours of writing and lines. */
  readonly options = input.required<EChartsCoreOption>();
  readonly label = input.required<string>();
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
      this.chart!.setOption(
        {
          textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable', color: map.soft },
          animation: false,
          ...this.options(),
        },
        { notMerge: true },
      );
      if ('brush' in this.options()) {
        this.chart!.dispatchAction({
          type: 'takeGlobalCursor',
          key: 'brush',
          brushOption: { brushType: 'lineX', brushMode: 'single' },
        });
      }
    });
  }

  ngOnDestroy(): void {
    this.watcher.disconnect();
    this.chart?.dispose();
  }

  private start(element: HTMLDivElement): void {
    this.chart = init(element, null, { renderer: 'canvas' });
    this.watcher.observe(element);
    this.chart.on('brushEnd', (event: unknown) => {
      const [area] = (event as { areas: { coordRange?: [number, number] }[] }).areas;
      this.brushed.emit(area?.coordRange ?? null);
    });
  }
}
