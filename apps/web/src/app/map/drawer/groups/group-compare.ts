import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import {
  adjustedRand,
  CATEGORY_COLOURS,
  OTHER_COLOUR,
  crossing,
  mutualInformation,
  withOthers,
} from '@pebble/core';
import type { EChartsCoreOption } from 'echarts/core';
import { Chart } from '../../../shared/chart';
import type { ChartRows } from '../../../shared/save-chart';
import { ThemeChoice } from '../../../shared/theme';
import { MapSession } from '../../session/map-session';
import { codesOf, groupName } from '../../session/grouping';

/** So many groups of either are drawn. */
const MOST = 14;

/** How far two groupings of the same nodes agree: two indices, and which group goes where. */
@Component({
  selector: 'pt-group-compare',
  imports: [MatTooltip, Chart],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (found(); as f) {
      <dl>
        <div matTooltip="Adjusted Rand index (Hubert & Arabie 1985): 1 where both agree wholly, 0 where they agree as chance would">
          <dt>adjusted Rand index</dt>
          <dd>{{ f.rand }}</dd>
        </div>
        <div matTooltip="Normalised mutual information (Danon et al. 2005): 1 where each says all of the other, 0 where nothing">
          <dt>normalised mutual information</dt>
          <dd>{{ f.information }}</dd>
        </div>
        <p class="soft">
          Of the whole network. Each band is the {{ session.words().many }} that are in one group on the left and one on
          the right. Many small groups raise the second figure.
        </p>
      </dl>
      <pt-chart [options]="chart()" [rows]="rows()" [label]="column() + ' and ' + other()" />
    }
  `,
  styleUrl: '../../../shared/figures.scss',
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      height: 100%;
      min-height: 260px;
      font-size: 13.5px;
    }
    dl {
      display: flex;
      gap: 28px;
      margin: 0;
    }
    dl p {
      margin: 0;
      align-self: center;
      max-width: 46ch;
      line-height: 1.3;
    }
    pt-chart {
      flex: 1;
      min-height: 0;
    }
  `,
})
export class GroupCompare {
  readonly column = input.required<string>();
  readonly other = input.required<string>();
  protected readonly session = inject(MapSession);
  private readonly theme = inject(ThemeChoice);
  protected readonly found = computed(() => {
    const data = this.session.data();
    if (!data || !(this.column() in data.nodes) || !(this.other() in data.nodes)) return null;
    const [a, b] = [codesOf(data, this.column()), codesOf(data, this.other())];
    const titles = this.session.titles();
    const [few, others] = [withOthers(a, MOST), withOthers(b, MOST)];
    return {
      rand: shown(adjustedRand(a.of, b.of)),
      information: shown(mutualInformation(a.of, b.of)),
      cross: crossing(few.of, others.of),
      left: few.names.map((name) => groupName(name, titles[this.column()])),
      right: others.names.map((name) => groupName(name, titles[this.other()])),
    };
  });
  /** Each band: its two groups and how many nodes it holds. */
  private readonly bands = computed(() => {
    const found = this.found();
    if (!found) return [];
    const { cross, left, right } = found;
    return cross.rows.flatMap((a, row) =>
      cross.columns.flatMap((b, column) => {
        const nodes = cross.cells[row * cross.columns.length + column];
        return nodes > 0 ? [{ a, from: left[a], to: right[b], b, nodes }] : [];
      }),
    );
  });
  protected readonly rows = computed<ChartRows>(() => [
    [this.column(), this.other(), 'nodes'],
    ...this.bands().map(({ from, to, nodes }) => [from, to, nodes]),
  ]);
  protected readonly chart = computed<EChartsCoreOption>(() => {
    const bands = this.bands();
    const colours = this.theme.map();
    const found = this.found();
    if (!found) return {};
    const node = (side: string, name: string, place: number) => ({
      name: `${side}${place}`,
      itemStyle: { color: CATEGORY_COLOURS[place] ?? OTHER_COLOUR },
      label: { formatter: () => name, position: side === 'l' ? 'left' : 'right' },
    });
    return {
      tooltip: { show: false },
      series: [
        {
          type: 'sankey',
          left: 170,
          right: 190,
          top: 20,
          bottom: 12,
          nodeGap: 6,
          layoutIterations: 0,
          draggable: false,
          data: [
            ...found.left.map((name, at) => node('l', name, at)),
            ...found.right.map((name, at) => node('r', name, at)),
          ],
          links: bands.map(({ a, b, nodes }) => ({ source: `l${a}`, target: `r${b}`, value: nodes })),
          lineStyle: { color: 'source', opacity: 0.35 },
          label: { color: colours.soft, width: 160, overflow: 'truncate' },
        },
      ],
    };
  });
}

function shown(value: number): string {
  return (Object.is(value, -0) ? 0 : value).toFixed(3).replace('-', '−');
}
