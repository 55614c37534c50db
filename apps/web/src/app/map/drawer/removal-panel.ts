import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  type OnDestroy,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import {
  formatCount,
  graphOf,
  nodeLabels,
  numbersOf,
  randomRemovalCurve,
  removalCurve,
  removeNodes,
  topNodes,
} from '@pebble/core';
import type { EChartsCoreOption } from 'echarts/core';
import { Chart } from '../../shared/chart';
import { axisIn } from '../../shared/chart-axes';
import { Notices } from '../../store/notices';
import type { ChartRows } from '../../shared/save-chart';
import { stepRun } from '../../shared/step-run';
import { ThemeChoice } from '../../shared/theme';
import { counted } from '../../shared/words';
import { MapSession } from '../session/map-session';
import { Busy } from '../../shared/busy';
import { draftOf } from '../../shared/draft';

/** The curves go so far. */
const MOST = 50;
/** Orders at random whose mean is drawn. */
const RUNS = 20;
const SEED = 1;
/** So many that would be cut off are named. */
const NAMED = 12;
const COLOURS = ['#D55E00', '#0072B2', '#009E73', '#CC79A7', '#E69F00', '#56B4E9', '#8C7A3D', '#8574B5'];
const MEASURES = [
  'betweenness',
  'inDegree',
  'degree',
  'strength',
  'pageRank',
  'closeness',
  'cutsOff',
  'core',
];

/** What falls apart without whom: shown on the map before anything is changed, and as curves. */
@Component({
  selector: 'pt-removal-panel',
  imports: [MatTooltip, MatInput, MatFormField, MatButton, Busy, FormsModule, Chart],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './removal-panel.html',
  styleUrls: ['../../shared/figures.scss', './beside.scss', './removal-panel.scss'],
})
export class RemovalPanel implements OnDestroy {
  private readonly session = inject(MapSession);
  private readonly notices = inject(Notices);
  private readonly theme = inject(ThemeChoice);
  protected readonly run = stepRun();
  protected readonly words = this.session.words;
  protected readonly how = signal<'top' | 'hand'>('top');
  private readonly hasBetweenness = computed(() => 'betweenness' in (this.session.data()?.nodes ?? {}));
  protected readonly by = draftOf(() => (this.hasBetweenness() ? 'betweenness' : 'degree'));
  protected readonly count = signal(1);
  protected readonly chosen = signal<readonly number[]>([]);
  /** Measures by which nodes can be taken out: of columns that every node of the network has. */
  protected readonly measures = computed(() => {
    const nodes = this.session.data()?.nodes ?? {};
    const columns = this.session.network()?.columns ?? [];
    return columns.filter(({ name, type }) => type === 'number' && name in nodes);
  });
  protected readonly labels = computed(() => {
    const data = this.session.data();
    return data ? nodeLabels(data.nodes) : [];
  });
  protected readonly selected = computed(() => {
    const selection = this.session.selection();
    return selection?.what === 'node' ? selection.node : null;
  });
  private readonly graph = computed(() => {
    const data = this.session.data();
    return data ? graphOf(data.nodeCount, data.edges) : null;
  });
  protected readonly taken = computed<readonly number[]>(() => {
    const data = this.session.data();
    if (this.how() === 'hand' || !data) return this.chosen();
    return this.by() in data.nodes ? topNodes(numbersOf(data.nodes, this.by()), this.count()) : [];
  });
  private readonly removal = computed(() => {
    const graph = this.graph();
    const taken = this.taken();
    return graph && taken.length > 0 ? removeNodes(graph, taken) : null;
  });
  protected readonly found = computed(() => {
    const removal = this.removal();
    if (!removal) return null;
    const { components, largest, cutOff, reach } = removal;
    const change = ({ before, after }: { before: number; after: number }): string =>
      `${formatCount(before)} → ${formatCount(after)}`;
    return {
      cutOff: cutOff.slice(0, NAMED).map((node) => ({ node, label: this.labels()[node] })),
      more: Math.max(0, cutOff.length - NAMED),
      facts: [
        {
          name: 'cut off',
          value: formatCount(cutOff.length),
          how: 'Nodes that are no longer in the largest rest of their component',
        },
        {
          name: 'components',
          value: change(components),
          how: 'Parts with no tie between them, without direction',
        },
        { name: 'in the largest', value: change(largest), how: 'Nodes of the largest component' },
        {
          name: 'pairs that still reach each other',
          value: Number.isNaN(reach) ? '–' : `${(100 * reach).toFixed(reach > 0.995 && reach < 1 ? 2 : 0)} %`,
          how: 'Of the pairs of remaining nodes that did before, along ties in either direction',
        },
      ],
    };
  });
  /** Share of all nodes in the largest component, by how many were taken out, for each measure and at random. */
  protected readonly curves = computed(() => {
    const graph = this.graph();
    const data = this.session.data();
    if (!graph || !data || data.nodeCount < 3) return [];
    const measures = this.measures().filter(({ name }) => MEASURES.includes(name));
    const most = Math.min(MOST, data.nodeCount - 1);
    const found = measures.map(({ name, title }) => ({
      title,
      shares: removalCurve(graph, topNodes(numbersOf(data.nodes, name), most)),
    }));
    return [
      ...found,
      { title: `at random`, shares: randomRemovalCurve(graph, most, { runs: RUNS, seed: SEED }) },
    ];
  });
  protected readonly rows = computed<ChartRows>(() => {
    const curves = this.curves();
    const most = Math.max(0, ...curves.map(({ shares }) => shares.length));
    return [
      ['taken out', ...curves.map(({ title }) => title)],
      ...Array.from({ length: most }, (_, n) => [n, ...curves.map(({ shares }) => shares[n] ?? '')]),
    ];
  });
  protected readonly chart = computed<EChartsCoreOption>(() => {
    const colours = this.theme.map();
    const line = axisIn(colours.soft);
    return {
      grid: { left: 52, right: 140, top: 26, bottom: 34 },
      legend: {
        orient: 'vertical',
        right: 0,
        top: 'middle',
        icon: 'roundRect',
        itemHeight: 3,
        textStyle: { color: colours.soft, width: 118, overflow: 'truncate' },
      },
      tooltip: { trigger: 'axis', valueFormatter: (share: number) => `${(100 * share).toFixed(1)} %` },
      xAxis: {
        ...line,
        type: 'value',
        max: this.rows().length - 2,
        name: 'taken out',
        nameLocation: 'middle',
        nameGap: 20,
      },
      yAxis: {
        ...line,
        type: 'value',
        scale: true,
        max: 'dataMax',
        name: 'share of all in the largest component',
        nameTextStyle: { color: colours.soft, align: 'left' },
        axisLabel: { color: colours.soft, formatter: (share: number) => `${Math.round(100 * share)} %` },
      },
      series: this.curves().map(({ title, shares }, at) => ({
        type: 'line',
        name: title,
        showSymbol: false,
        color: title === 'at random' ? colours.soft : COLOURS[at % COLOURS.length],
        lineStyle: {
          width: title === this.byTitle() ? 3 : 1.5,
          type: title === 'at random' ? 'dashed' : 'solid',
        },
        data: Array.from(shares, (share, n) => [n, share]),
      })),
    };
  });
  private readonly byTitle = computed(() => this.measures().find(({ name }) => name === this.by())?.title);

  constructor() {
    effect(() => {
      const removal = this.removal();
      this.session.emphasise(
        removal && { nodes: new Set(this.taken()), around: new Set(removal.cutOff), edges: new Set() },
      );
    });
  }

  ngOnDestroy(): void {
    this.session.emphasise(null);
  }

  protected counted = counted;

  protected setCount(typed: number | null): void {
    this.count.set(Math.min(1000, Math.max(1, Math.floor(typed ?? 1))));
  }

  protected add(node: number): void {
    if (!this.chosen().includes(node)) this.chosen.update((before) => [...before, node]);
    this.how.set('hand');
  }

  protected putBack(node: number): void {
    this.chosen.update((before) => before.filter((one) => one !== node));
  }

  protected select(node: number): void {
    this.session.selectNode(node);
  }

  protected note(): void {
    const network = this.session.network();
    if (!network) return;
    const asked = {
      network: network.id,
      nodes: [...this.taken()],
      by: this.how() === 'top' ? this.by() : null,
    };
    this.run.start(network.study, 'test-removal', asked, ({ sentence }) => this.notices.say(sentence));
  }
}
