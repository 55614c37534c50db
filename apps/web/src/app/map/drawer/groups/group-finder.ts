import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import { GroupingSettings, type AtResolution, type GroupingMethod } from '@pebble/contract';
import type { EChartsCoreOption } from 'echarts/core';
import { Chart } from '../../../shared/chart';
import { axisIn } from '../../../shared/chart-axes';
import { Notices } from '../../../store/notices';
import type { ChartRows } from '../../../shared/save-chart';
import { stepRun } from '../../../shared/step-run';
import { ThemeChoice } from '../../../shared/theme';
import { MapSession } from '../../session/map-session';
import { Busy } from '../../../shared/busy';

const METHODS: readonly (readonly [GroupingMethod, string, string])[] = [
  [
    'leiden',
    'communities, Leiden',
    'Groups with more ties within than chance gives, each of which hangs together.',
  ],
  ['louvain', 'communities, Louvain', 'The same aim; a group may fall apart into pieces.'],
  [
    'labels',
    'communities, by labels',
    'Each node takes the label of most of its neighbours: quick, and less steady.',
  ],
  ['weak', 'weak components', 'Parts with no tie between them.'],
  ['strong', 'strong components', 'Parts in which everybody reaches everybody along the direction of ties.'],
  ['core', 'rings by core number', 'Nodes that are tied to many who are tied to many, ring by ring.'],
];

/** Finds groups of nodes by a method; the settings are said with it. */
@Component({
  selector: 'pt-group-finder',
  imports: [MatTooltip, MatInput, MatFormField, MatCheckbox, MatButton, Busy, FormsModule, Chart],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './group-finder.html',
  styleUrl: './group-finder.scss',
})
export class GroupFinder {
  /** The name of a grouping that was found. */
  readonly found = output<string>();
  private readonly session = inject(MapSession);
  private readonly notices = inject(Notices);
  private readonly theme = inject(ThemeChoice);
  private readonly finding = stepRun();
  private readonly scanning = stepRun();
  protected readonly methods = METHODS;
  protected readonly settings = signal<GroupingSettings>(GroupingSettings.parse({}));
  protected readonly typed = signal('');
  protected readonly scan = signal<readonly AtResolution[] | null>(null);
  protected readonly busy = this.finding.busy;
  protected readonly scanBusy = this.scanning.busy;
  protected readonly problem = computed(() => this.finding.problem() ?? this.scanning.problem());
  protected readonly directed = computed(() => this.session.network()?.directed ?? false);
  protected readonly method = computed(() => METHODS.find(([id]) => id === this.settings().method)!);
  protected readonly isCommunities = computed(() =>
    ['leiden', 'louvain', 'labels'].includes(this.settings().method),
  );
  protected readonly knowsResolution = computed(() => ['leiden', 'louvain'].includes(this.settings().method));
  /** A name that no column has yet. */
  protected readonly name = computed(() => {
    const { method, resolution } = this.settings();
    const base =
      this.typed().trim() ||
      `${this.method()[1].split(', ').at(-1)}${this.knowsResolution() && resolution !== 1 ? ` ${resolution}` : ''}`;
    return method === 'core' && this.typed().trim() === '' ? 'rings' : base;
  });
  protected readonly rows = computed<ChartRows>(() => [
    ['resolution', 'groups', 'groups of more than two', 'modularity'],
    ...(this.scan() ?? []).map(({ resolution, groups, larger, modularity }) => [
      resolution,
      groups,
      larger,
      modularity,
    ]),
  ]);
  protected readonly curve = computed<EChartsCoreOption>(() => {
    const colours = this.theme.map();
    const line = axisIn(colours.soft);
    return {
      grid: { left: 44, right: 12, top: 22, bottom: 34 },
      tooltip: { trigger: 'axis' },
      xAxis: {
        ...line,
        type: 'log',
        min: 0.25,
        max: 4,
        name: 'resolution',
        nameLocation: 'middle',
        nameGap: 20,
      },
      yAxis: {
        ...line,
        type: 'value',
        name: 'groups of more than two',
        nameTextStyle: { color: colours.soft, align: 'left' },
      },
      series: [
        {
          type: 'line',
          step: 'middle',
          symbolSize: 7,
          color: '#B4512F',
          data: (this.scan() ?? []).map(({ resolution, larger }) => [resolution, larger]),
        },
      ],
    };
  });

  protected change(part: Partial<GroupingSettings>): void {
    this.settings.update((before) => ({ ...before, ...part }));
  }

  protected number(typed: number | null, least: number, most: number): number {
    return Math.min(most, Math.max(least, typed ?? least));
  }

  protected find(): void {
    const network = this.session.network();
    if (!network) return;
    const name = this.name();
    const asked = { network: network.id, name, settings: this.settings() };
    this.finding.start(network.study, 'group-nodes', asked, ({ sentence, result }) => {
      this.notices.say(sentence);
      void this.session.refresh().then(() => this.found.emit(String(result?.['column'])));
    });
  }

  protected count(): void {
    const network = this.session.network();
    if (!network) return;
    const asked = { network: network.id, settings: { ...this.settings(), runs: 2 } };
    this.scanning.start(network.study, 'scan-resolutions', asked, ({ result }) =>
      this.scan.set(result?.['found'] as AtResolution[]),
    );
  }

  /** Takes the resolution of a point of the curve. */
  protected take(place: number): void {
    const at = this.scan()?.[place];
    if (at) this.change({ resolution: at.resolution });
  }
}
