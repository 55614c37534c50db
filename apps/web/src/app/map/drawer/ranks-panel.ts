import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import { DoubtMeasure } from '@pebble/contract';
import {
  formatCount,
  nodeLabels,
  numbersOf,
  rankColumns,
  rankCorrelation,
  ranks,
  saveableCsv,
} from '@pebble/core';
import { saveFile } from '../../shared/save-file';
import { Notices } from '../../store/notices';
import { stepRun } from '../../shared/step-run';
import { MapSession } from '../session/map-session';
import { PositionLists } from './position-lists';
import { Busy } from '../../shared/busy';

/** Measures that stand side by side at first, as far as they are there. */
const FIRST = ['inDegree', 'degree', 'strength', 'betweenness', 'pageRank'];
const MOST = 5;
/** So many of each measure's first places have a row. */
const PLACES = 8;

interface Cell {
  readonly rank: string;
  /** "1 to 4" where it was computed how sure it is. */
  readonly range: string;
  readonly isFirst: boolean;
}

interface Row {
  readonly node: number;
  readonly label: string;
  readonly cells: readonly Cell[];
}

/** First places by several measures side by side, how far these agree, and how sure the ranks are. */
@Component({
  selector: 'pt-ranks-panel',
  imports: [MatTooltip, MatInput, MatFormField, MatButton, Busy, FormsModule, PositionLists],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './ranks-panel.html',
  styleUrls: ['./beside.scss', './ranks-panel.scss'],
})
export class RanksPanel {
  private readonly session = inject(MapSession);
  private readonly notices = inject(Notices);
  protected readonly run = stepRun();
  protected readonly words = this.session.words;
  private readonly picked = signal<readonly string[] | null>(null);
  protected readonly measures = computed(() => {
    const nodes = this.session.data()?.nodes ?? {};
    const columns = this.session.network()?.columns ?? [];
    const known = columns.filter(({ name, type }) => type === 'number' && name in nodes);
    return known.filter(({ name }) => !/, (best|worst) rank$|, sure$/.test(name));
  });
  /** Measures that have a column here. */
  protected readonly chosen = computed(() => {
    const names = this.picked() ?? FIRST;
    const here = this.measures().filter(({ name }) => names.includes(name));
    return this.picked() === null ? here.slice(0, MOST) : here;
  });
  protected readonly open = computed(() => {
    const chosen = this.chosen().map(({ name }) => name);
    return this.measures().filter(({ name }) => !chosen.includes(name));
  });
  private readonly ranked = computed(() => {
    const data = this.session.data();
    if (!data) return [];
    return this.chosen().map(({ name, title }) => {
      const names = rankColumns(title);
      const isKnown = names.from in data.nodes;
      return {
        rank: ranks(numbersOf(data.nodes, name)),
        from: isKnown ? numbersOf(data.nodes, names.from) : null,
        to: isKnown ? numbersOf(data.nodes, names.to) : null,
      };
    });
  });
  /** Whether how sure a measure's ranks are is known, or could be. */
  protected readonly doubt = computed(() =>
    this.chosen().map(({ name }, at) => ({
      isKnown: this.ranked()[at]?.from != null,
      isPossible: DoubtMeasure.safeParse(name).success && this.session.hasMessages(),
    })),
  );
  protected readonly rows = computed<Row[]>(() => {
    const data = this.session.data();
    const ranked = this.ranked();
    if (!data || ranked.length === 0) return [];
    const labels = nodeLabels(data.nodes);
    const nodes = Array.from({ length: data.nodeCount }, (_, v) => v).filter((v) =>
      ranked.some(({ rank }) => rank[v] <= PLACES),
    );
    const mean = (v: number): number =>
      ranked.reduce((sum, { rank }) => sum + Math.log(Number.isNaN(rank[v]) ? data.nodeCount : rank[v]), 0);
    return nodes
      .sort((a, b) => mean(a) - mean(b) || a - b)
      .slice(0, 3 * PLACES)
      .map((node) => ({
        node,
        label: labels[node],
        cells: ranked.map(({ rank, from, to }) => ({
          rank: Number.isNaN(rank[node]) ? '–' : formatCount(rank[node]),
          range: from && to ? `${formatCount(from[node])} to ${formatCount(to[node])}` : '',
          isFirst: rank[node] <= 3,
        })),
      }));
  });
  /** "in-degree and betweenness 0.62" for each pair of measures. */
  protected readonly agreement = computed(() => {
    const data = this.session.data();
    const chosen = this.chosen();
    if (!data) return [];
    return chosen.flatMap((a, i) =>
      chosen.slice(i + 1).map((b) => {
        const value = rankCorrelation(numbersOf(data.nodes, a.name), numbersOf(data.nodes, b.name));
        return `${a.title} and ${b.title} ${Number.isNaN(value) ? '–' : value.toFixed(2).replace('-', '−')}`;
      }),
    );
  });

  protected add(name: string): void {
    if (name) this.picked.set([...this.chosen().map((one) => one.name), name]);
  }

  protected leave(name: string): void {
    this.picked.set(
      this.chosen()
        .map((one) => one.name)
        .filter((one) => one !== name),
    );
  }

  protected select(node: number): void {
    this.session.selectNode(node);
  }

  protected ask(name: string): void {
    const network = this.session.network();
    const measure = DoubtMeasure.safeParse(name);
    if (!network || !measure.success) return;
    const asked = { network: network.id, measure: measure.data, runs: 100, seed: 1 };
    this.run.start(network.study, 'doubt-ranks', asked, ({ sentence }) => {
      this.notices.say(sentence);
      void this.session.refresh();
    });
  }

  protected save(): void {
    const head = [this.words().one, ...this.chosen().flatMap(({ title }) => [`rank by ${title}`, 'range'])];
    const body = this.rows().map(({ label, cells }) => [
      label,
      ...cells.flatMap(({ rank, range }) => [rank, range]),
    ]);
    saveFile(new Blob([saveableCsv([head, ...body])], { type: 'text/csv' }), 'First places.csv');
  }
}
