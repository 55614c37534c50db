import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import { MatButtonToggle } from '@angular/material/button-toggle';
import { MatButtonToggleGroup } from '@angular/material/button-toggle';
import {
  cumulative,
  distribution,
  formatValue,
  inClasses,
  nodeLabels,
  numbersOf,
  outliers,
  rankCorrelation,
} from '@pebble/core';
import type { EChartsCoreOption } from 'echarts/core';
import { Chart } from '../../shared/chart';
import { ThemeChoice } from '../../shared/theme';
import { counted } from '../../shared/words';
import { MapSession } from '../session/map-session';
import { draftOf } from '../../shared/draft';

type Kind = 'distribution' | 'pair';
type Form = 'counts' | 'log-log' | 'cumulative';

/** Classes of a distribution with linear axes. */
const CLASSES = 40;
const NAMED = 12;
const FIRST = '#D55E00';
const SECOND = '#0072B2';

const RAISED = '⁰¹²³⁴⁵⁶⁷⁸⁹';

/** Small numbers as powers of ten, "10⁻⁵" or "3·10⁻⁵". */
function tick(value: number): string {
  if (value === 0 || Math.abs(value) >= 0.001) return formatValue(value).replace('-', '−');
  const [digits, power] = value.toExponential().split('e-');
  const raised = [...power].map((digit) => RAISED[Number(digit)]).join('');
  return `${digits === '1' ? '' : `${digits}·`}10⁻${raised}`;
}

/** Charts of the measures of what is shown: how one is spread, and two against each other. */
@Component({
  selector: 'pt-charts-panel',
  imports: [
    MatButtonToggleGroup,
    MatButtonToggle,
    MatTooltip,
    MatInput,
    MatFormField,
    MatCheckbox,
    FormsModule,
    Chart,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './charts-panel.html',
  styleUrls: ['../panels/panel-below.scss', './charts-panel.scss'],
})
export class ChartsPanel {
  private readonly session = inject(MapSession);
  private readonly theme = inject(ThemeChoice);
  protected readonly forms: readonly (readonly [Form, string, string])[] = [
    ['counts', 'counts', 'How many nodes have each value; many values are put in classes of the same width.'],
    ['log-log', 'log-log', 'Both axes logarithmic: a heavy tail falls in a straight line. 0 stands at 1.'],
    [
      'cumulative',
      'cumulative',
      'The share of nodes that have at least this value, axes logarithmic. 0 stands at 1.',
    ],
  ];
  protected readonly kind = signal<Kind>('distribution');
  protected readonly form = signal<Form>('log-log');
  protected readonly isLog = signal(true);
  protected readonly measures = computed(() => {
    const nodes = this.session.data()?.nodes ?? {};
    const columns = this.session.network()?.columns ?? [];
    return columns.filter(({ name, type }) => type === 'number' && name in nodes);
  });
  protected readonly first = draftOf(() => this.known('inDegree') ?? this.known('degree') ?? '');
  protected readonly second = draftOf(() =>
    this.kind() === 'pair' ? (this.known('betweenness') ?? this.first()) : (this.known('outDegree') ?? ''),
  );
  private readonly nodes = computed(() => {
    const map = this.session.prepared();
    return map ? map.nodes.filter((v) => !map.pale?.[v]) : new Uint32Array();
  });
  protected readonly agreement = computed(() => {
    const [a, b] = [this.values(this.first()), this.values(this.second())];
    if (!a || !b) return '';
    const nodes = [...this.nodes()];
    const value = rankCorrelation(
      nodes.map((v) => a[v]),
      nodes.map((v) => b[v]),
    );
    return `rank correlation ${Number.isNaN(value) ? '–' : value.toFixed(2).replace('-', '−')}`;
  });
  /** How many nodes are not in the chart, since they have no value. */
  protected readonly left = computed(() => {
    const values = [this.first(), this.second()]
      .map((name) => this.values(name))
      .filter((one) => one !== null);
    const without = this.nodes().filter((v) => values.some((one) => Number.isNaN(one[v]))).length;
    return without > 0 ? `${counted(without, 'node')} without a value not shown` : '';
  });
  protected readonly label = computed(() =>
    this.kind() === 'pair'
      ? `${this.title(this.first())} against ${this.title(this.second())}`
      : `How ${this.title(this.first())} is spread`,
  );
  private readonly series = computed(() =>
    [this.first(), this.second()].flatMap((name) => {
      const values = this.values(name);
      if (!values) return [];
      const counts = distribution(values, this.nodes());
      const form = this.form();
      const points =
        form === 'counts' ? inClasses(counts, CLASSES) : form === 'cumulative' ? cumulative(counts) : counts;
      return [{ title: this.title(name), points }];
    }),
  );
  protected readonly rows = computed(() => {
    const data = this.session.data();
    if (!data) return null;
    if (this.kind() === 'distribution')
      return [
        ['measure', 'value', this.form() === 'cumulative' ? 'share with at least it' : 'nodes'],
        ...this.series().flatMap(({ title, points }) => points.map(([x, y]) => [title, x, y])),
      ];
    const [a, b] = [this.values(this.first()), this.values(this.second())];
    const labels = nodeLabels(data.nodes);
    return [
      [this.session.words().one, this.title(this.first()), this.title(this.second())],
      ...Array.from(this.nodes(), (v) => [labels[v], a?.[v] ?? NaN, b?.[v] ?? NaN]),
    ];
  });
  protected readonly options = computed<EChartsCoreOption>(() =>
    this.kind() === 'pair' ? this.pairChart() : this.spreadChart(),
  );

  /** A point of two measures is a node. */
  protected pick(data: unknown): void {
    const node = (data as { node?: number } | null)?.node;
    if (node !== undefined) this.session.selectNode(node);
  }

  private known(name: string): string | undefined {
    return this.measures().find((one) => one.name === name)?.name;
  }

  private title(name: string): string {
    return this.measures().find((one) => one.name === name)?.title ?? '';
  }

  private values(name: string): ArrayLike<number> | null {
    const data = this.session.data();
    return data && this.known(name) ? numbersOf(data.nodes, name) : null;
  }

  private axis(name: string, isLog: boolean): object {
    const { soft } = this.theme.map();
    return {
      type: isLog ? 'log' : 'value',
      name,
      nameLocation: 'middle',
      nameGap: 34,
      nameTextStyle: { color: soft },
      axisLabel: { color: soft, formatter: (value: number) => tick(value) },
      axisLine: { lineStyle: { color: soft } },
      splitLine: { lineStyle: { color: soft, opacity: 0.15 } },
    };
  }

  private spreadChart(): EChartsCoreOption {
    const form = this.form();
    const isLog = form !== 'counts';
    const many = this.session.words().many;
    const share = form === 'cumulative';
    return {
      grid: { left: 70, right: 24, top: 34, bottom: 52 },
      legend: { top: 4, textStyle: { color: this.theme.map().ink }, show: this.series().length > 1 },
      tooltip: {
        trigger: 'item',
        formatter: ({ seriesName, value }: { seriesName: string; value: [number, number] }) => {
          const at = isLog ? value[0] - 1 : value[0];
          const number = String(Number(at.toPrecision(4)));
          return share
            ? `${(100 * value[1]).toFixed(1)} % with ${seriesName} of at least ${number}`
            : `${counted(value[1], this.session.words().one, many)} with ${seriesName} ${number}`;
        },
      },
      xAxis: this.axis(isLog ? 'value + 1' : 'value', isLog),
      yAxis: this.axis(share ? `share of ${many}` : many, isLog),
      series: this.series().map(({ title, points }, s) => ({
        type: form === 'counts' ? 'bar' : 'scatter',
        name: title,
        symbol: s === 0 ? 'circle' : 'diamond',
        symbolSize: 8,
        barMaxWidth: 14,
        itemStyle: { color: s === 0 ? FIRST : SECOND, opacity: 0.85 },
        data: points.map(([x, y]) => [isLog ? x + 1 : x, y]),
      })),
    };
  }

  private pairChart(): EChartsCoreOption {
    const data = this.session.data();
    const [a, b] = [this.values(this.first()), this.values(this.second())];
    const map = this.session.prepared();
    if (!data || !map || !a || !b) return {};
    const labels = nodeLabels(data.nodes);
    const selection = this.session.selection();
    const selected = selection?.what === 'node' ? selection.node : -1;
    const named = new Set(outliers(a, b, this.nodes(), NAMED));
    const { ink, mark } = this.theme.map();
    // A logarithmic axis has no 0: values there stand at half of the least above it.
    const shift = (values: ArrayLike<number>): number => {
      let least = Infinity;
      for (const v of this.nodes()) if (values[v] > 0) least = Math.min(least, values[v]);
      return Number.isFinite(least) ? least / 2 : 1;
    };
    const isLog = this.isLog();
    const [atX, atY] = [shift(a), shift(b)];
    const place = (value: number, zero: number): number => (isLog && !(value > 0) ? zero : value);
    return {
      grid: { left: 70, right: 40, top: 16, bottom: 52 },
      tooltip: {
        trigger: 'item',
        formatter: ({ data: { node } }: { data: { node: number } }) =>
          `${labels[node]}: ${this.title(this.first())} ${String(Number(a[node].toPrecision(4)))}, ${this.title(this.second())} ${String(Number(b[node].toPrecision(4)))}`,
      },
      xAxis: this.axis(`${this.title(this.first())}${isLog ? ' (0 at the rim)' : ''}`, isLog),
      yAxis: this.axis(this.title(this.second()), isLog),
      series: [
        {
          type: 'scatter',
          symbolSize: 8,
          labelLayout: { hideOverlap: true },
          data: Array.from(this.nodes())
            .filter((v) => !Number.isNaN(a[v]) && !Number.isNaN(b[v]))
            .map((node) => ({
              node,
              value: [place(a[node], atX), place(b[node], atY)],
              symbolSize: node === selected ? 13 : 8,
              itemStyle: {
                color: node === selected ? mark : map.colours[map.colour[node]],
                opacity: node === selected ? 1 : 0.8,
              },
              label: {
                show: named.has(node) || node === selected,
                position: 'right',
                color: node === selected ? mark : ink,
                formatter: labels[node].slice(0, 40),
              },
            })),
        },
      ],
    };
  }
}
