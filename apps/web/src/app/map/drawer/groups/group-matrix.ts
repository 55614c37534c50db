import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { formatValue, graphOf, groupTies, withOthers } from '@pebble/core';
import type { EChartsCoreOption } from 'echarts/core';
import { Chart } from '../../../shared/chart';
import type { ChartRows } from '../../../shared/save-chart';
import { ThemeChoice } from '../../../shared/theme';
import { MapSession } from '../../session/map-session';
import { codesOf, groupName } from '../../session/grouping';

/** So many groups have a row of their own. */
const MOST = 16;
const SHORTEST = 22;

type Cells = 'ties' | 'weight' | 'density' | 'overExpected';

const CELLS: readonly (readonly [Cells, string])[] = [
  ['overExpected', 'weight over what chance gives'],
  ['ties', 'ties'],
  ['weight', 'weight'],
  ['density', 'density'],
];

/** What leads from one group to another, as a matrix. */
@Component({
  selector: 'pt-group-matrix',
  imports: [MatInput, MatFormField, FormsModule, Chart],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label
      >Each cell shows the
      <mat-form-field><select matNativeControl aria-label="What a cell shows" [ngModel]="cells()" (ngModelChange)="cells.set($event)">
        @for (one of offered; track one[0]) {
          <option [value]="one[0]">{{ one[1] }}</option>
        }
      </select></mat-form-field>
      {{ directed() ? 'from the group of the row to that of the column.' : 'between two groups.' }}
      {{ says() }}</label
    >
    <pt-chart [options]="chart()" [rows]="rows()" [label]="'Ties between groups, ' + column()" />
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      height: 100%;
      min-height: 260px;
      font-size: 13.5px;
    }
    .box {
      font-size: 13.5px;
      padding: 2px 6px;
    }
    pt-chart {
      flex: 1;
      min-height: 0;
    }
  `,
})
export class GroupMatrix {
  readonly column = input.required<string>();
  private readonly session = inject(MapSession);
  private readonly theme = inject(ThemeChoice);
  protected readonly offered = CELLS;
  protected readonly cells = signal<Cells>('overExpected');
  protected readonly directed = computed(() => this.session.network()?.directed ?? true);
  protected readonly says = computed(() =>
    this.cells() === 'overExpected'
      ? '1 is what their strengths alone would give.'
      : 'Self-ties do not count.',
  );
  private readonly found = computed(() => {
    const data = this.session.data();
    if (!data || !(this.column() in data.nodes)) return null;
    const codes = withOthers(codesOf(data, this.column()), MOST);
    const ties = groupTies(graphOf(data.nodeCount, data.edges), codes.of, this.directed());
    return { names: codes.names.map((name) => groupName(name, this.session.titles()[this.column()])), ties };
  });
  protected readonly rows = computed<ChartRows>(() => {
    const found = this.found();
    if (!found) return [];
    const { names, ties } = found;
    const head = ['from', 'to', ...CELLS.map(([name]) => name)];
    const body = names.flatMap((from, a) =>
      names.map((to, b) => [from, to, ...CELLS.map(([name]) => ties[name][a * ties.groups + b])]),
    );
    return [head, ...body];
  });
  protected readonly chart = computed<EChartsCoreOption>(() => {
    const found = this.found();
    const colours = this.theme.map();
    if (!found) return {};
    const { names, ties } = found;
    const cells = this.cells();
    const values = ties[cells];
    const data = names.flatMap((_, a) =>
      names.map((__, b) => {
        const value = values[a * ties.groups + b];
        return [b, a, Number.isNaN(value) ? '-' : Math.log1p(value), value];
      }),
    );
    // Few cells hold far more than all others: shades go by the logarithm.
    const most = Math.log1p(Math.max(...values.filter((value) => Number.isFinite(value)), 1e-9));
    const label = { color: colours.soft, width: 130, overflow: 'truncate' } as const;
    const axis = {
      type: 'category',
      data: names,
      splitArea: { show: false },
      axisTick: { show: false },
    } as const;
    return {
      grid: { left: 150, right: 70, top: 30, bottom: 12 },
      tooltip: {
        formatter: ({ value: [b, a] }: { value: [number, number] }) => this.tell(a, b),
      },
      xAxis: { ...axis, position: 'top', axisLabel: { ...label, width: SHORTEST * 3, interval: 0 } },
      yAxis: { ...axis, inverse: true, axisLabel: { ...label, interval: 0 } },
      visualMap: {
        min: 0,
        dimension: 2,
        max: most,
        calculable: false,
        orient: 'vertical',
        right: 4,
        bottom: 10,
        itemHeight: 120,
        textStyle: { color: colours.soft },
        formatter: (shade: number) => formatValue(Math.expm1(shade)),
        inRange: { color: this.theme.night() ? ['#1a2025', '#B4512F'] : ['#fbfaf6', '#B4512F'] },
      },
      series: [
        {
          type: 'heatmap',
          data,
          itemStyle: { borderColor: this.theme.night() ? '#1a2025' : '#ffffff', borderWidth: 1 },
          label: {
            show: names.length <= 12,
            color: colours.ink,
            formatter: ({ value }: { value: readonly number[] }) =>
              Number.isNaN(value[3]) ? '' : formatValue(value[3]),
          },
        },
      ],
    };
  });

  private tell(a: number, b: number): string {
    const { names, ties } = this.found()!;
    const at = a * ties.groups + b;
    const ends = a === b ? `within ${names[a]}` : `${names[a]} ${this.directed() ? 'to' : 'and'} ${names[b]}`;
    const expected = ties.overExpected[at];
    const times = Number.isNaN(expected) ? '' : `, ${formatValue(expected)} times what chance gives`;
    return escaped(
      `${ends}: ${formatValue(ties.ties[at])} ties of weight ${formatValue(ties.weight[at])}${times}`,
    );
  }
}

/** Names stand in a tooltip that is made as HTML. */
function escaped(text: string): string {
  return text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
}
