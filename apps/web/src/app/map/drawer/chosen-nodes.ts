import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import { RouterLink } from '@angular/router';
import { Condition, type MapDescription } from '@pebble/contract';
import {
  commonNeighbours,
  graphOf,
  movedByHand,
  nodeLabels,
  numbersOf,
  othersThan,
  pathsBetween,
  SET_BY_HAND,
  withNeighbours,
  type HandMove,
} from '@pebble/core';
import { stepRun } from '../../shared/step-run';
import { counted } from '../../shared/words';
import { MapSession } from '../session/map-session';
import { planning } from '../session/planning';
import { rankingColumn } from '../session/tie-columns';
import { Busy } from '../../shared/busy';

/** Chosen nodes that are listed. */
const LISTED = 40;

/** Moves by hand, in words. */
const MOVES: readonly (readonly [HandMove, words: string])[] = [
  ['row', 'In a row'],
  ['column', 'In a column'],
  ['circle', 'On a circle'],
  ['spread across', 'Even gaps across'],
  ['spread down', 'Even gaps down'],
  ['closer', 'Closer'],
  ['wider', 'Wider'],
  ['turn left', 'Turn left'],
  ['turn right', 'Turn right'],
  ['mirror across', 'Mirror left, right'],
  ['mirror down', 'Mirror up, down'],
];

/** Several nodes that were chosen on the map: who they are, and what can be done with all of them at once. */
@Component({
  selector: 'pt-chosen-nodes',
  imports: [MatTooltip, MatInput, MatFormField, MatButton, Busy, FormsModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './chosen-nodes.html',
  styleUrls: ['./name-link.scss', './chosen-nodes.scss'],
})
export class ChosenNodes {
  private readonly session = inject(MapSession);
  protected readonly run = stepRun();
  protected readonly plan = planning().add;
  protected readonly words = this.session.words;
  protected readonly nodes = this.session.chosen;
  protected readonly moves = MOVES;
  protected readonly counted = counted;
  /** What was found of the last question, or why nothing. */
  protected readonly finding = signal<string | null>(null);
  protected readonly set = signal<string | null>(null);
  protected readonly title = signal('');
  protected readonly column = signal('');
  protected readonly value = signal('');
  protected readonly directed = computed(() => this.session.network()?.directed ?? true);
  /** Categories that were set by hand before. */
  protected readonly ownColumns = computed(() =>
    (this.session.network()?.columns ?? []).filter(({ how }) => how === SET_BY_HAND),
  );
  protected readonly ties = computed(() => this.session.focus()?.edges.size ?? 0);
  protected readonly listed = computed(() => {
    const data = this.session.data();
    if (!data) return [];
    const labels = nodeLabels(data.nodes);
    const rank = numbersOf(data.nodes, rankingColumn(data).column);
    return [...this.nodes()]
      .sort((a, b) => rank[b] - rank[a] || a - b)
      .slice(0, LISTED)
      .map((node) => ({ node, label: labels[node] }));
  });
  protected readonly areHeld = computed(() => {
    const held = new Set(this.session.description().held);
    return this.nodes().every((v) => held.has(v));
  });
  /** The two that are chosen, by name, where there are just two. */
  protected readonly pair = computed(() => {
    const [a, b] = this.nodes();
    const data = this.session.data();
    if (this.nodes().length !== 2 || !data) return null;
    const labels = nodeLabels(data.nodes);
    return { a, b, from: labels[a], to: labels[b] };
  });

  protected read(node: number): void {
    this.session.selectNode(node);
  }

  protected leave(node: number): void {
    this.choose(this.nodes().filter((v) => v !== node));
  }

  protected clear(): void {
    this.session.clearSelection();
  }

  protected addNeighbours(): void {
    const rows = this.session.rows();
    if (rows) this.choose(withNeighbours(rows, this.nodes()));
  }

  protected takeCommon(): void {
    const rows = this.session.rows();
    if (!rows) return;
    const common = commonNeighbours(rows, this.nodes());
    const { many } = this.words();
    if (common.length === 0) this.finding.set(`No other of the ${many} is tied to every one of these.`);
    else this.choose([...this.nodes(), ...common], `${common.length} ${many} are tied to every one.`);
  }

  protected takeOthers(): void {
    const shown = this.session.prepared()?.nodes;
    if (shown) this.choose(othersThan(shown, this.nodes()));
  }

  /** Adds what lies on the shortest paths between the two. */
  protected findPaths(a: number, b: number, way: 'along' | 'either'): void {
    const data = this.session.data();
    if (!data) return;
    const { steps, nodes } = pathsBetween(graphOf(data.nodeCount, data.edges), a, b, way);
    const labels = nodeLabels(data.nodes);
    const ends = `${labels[a]} ${way === 'along' ? 'to' : 'and'} ${labels[b]}`;
    if (steps === null) this.finding.set(`There is no path from ${ends}.`);
    else
      this.choose(
        nodes,
        `${counted(steps, 'step')} from ${ends}; ${counted(nodes.length - 2, this.words().one, this.words().many)} lie on the shortest paths.`,
      );
  }

  protected move(how: HandMove): void {
    const places = this.session.places();
    const map = this.session.prepared();
    if (!places || !map) return;
    const nodes = this.nodes();
    this.session.moveNodes(nodes, movedByHand(how, nodes, places, map.radius));
  }

  protected hold(): void {
    const chosen = new Set(this.nodes());
    const others = this.session.description().held.filter((v) => !chosen.has(v));
    this.describe({ held: this.areHeld() ? others : [...others, ...chosen] });
  }

  /** Shows only these, or leaves them out; the caption says so, where it can be changed. */
  protected show(only: boolean): void {
    const { show } = this.session.description();
    const chosen = Condition.parse({ what: 'chosen', nodes: this.nodes(), not: !only });
    const { joined, conditions } = show.where;
    const before = joined === 'or' && conditions.length > 1 ? [this.asChosen()] : conditions;
    this.describe({ show: { ...show, where: { joined: 'and', conditions: [...before, chosen] } } });
    if (!only) this.clear();
  }

  /** What is shown now, as a list: a condition that is added to others of which one is enough would say something else. */
  private asChosen(): Condition {
    const shown = this.session.prepared()?.nodes ?? [];
    return Condition.parse({ what: 'chosen', nodes: [...shown] });
  }

  protected outline(): void {
    const { regions } = this.session.description();
    const own = [...regions.own, { title: this.title().trim(), nodes: [...this.nodes()] }];
    this.describe({ regions: { ...regions, own } });
    this.title.set('');
  }

  protected mark(): void {
    const network = this.session.network();
    if (!network || this.column().trim() === '') return;
    const nodes = [...this.nodes()];
    const asked = { network: network.id, nodes, column: this.column().trim(), value: this.value().trim() };
    this.run.start(network.study, 'mark-nodes', asked, ({ sentence }) => {
      this.finding.set(sentence);
      this.set.set(asked.column);
      void this.session.refresh();
    });
  }

  /** The category that was just set does not colour the map yet. */
  protected readonly isUncoloured = computed(() => {
    const set = this.set();
    const isThere = set !== null && set in (this.session.data()?.nodes ?? {});
    return isThere && this.session.description().colour.column !== set;
  });
  /** Where portraits of groups are. */
  protected readonly readAddress = computed(() => {
    const network = this.session.network();
    return network && ['/studies', network.study, 'read', network.id];
  });

  protected colourBy(column: string): void {
    this.describe({ colour: { ...this.session.description().colour, column } });
  }

  private choose(nodes: readonly number[], finding: string | null = null): void {
    this.finding.set(finding);
    this.session.chooseNodes([...new Set(nodes)].sort((a, b) => a - b));
  }

  private describe(change: Partial<MapDescription>): void {
    const description = { ...this.session.description(), ...change };
    this.session.describe(description);
  }
}
