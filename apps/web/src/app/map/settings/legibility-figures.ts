import { ChangeDetectionStrategy, Component, computed, effect, type OnDestroy, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import {
  fitView,
  formatCount,
  graphOf,
  marginFor,
  numbersOf,
  PAPER,
  roomForNames,
  type Legibility,
} from '@pebble/core';
import { injectMapEditor } from '../session/inject-map-editor';
import { LegibilityReader } from './legibility-reader';
import { percent } from './percent';

interface Figure {
  readonly name: string;
  readonly value: string;
  readonly how: string;
  /** What would make it better. */
  readonly advice: string;
}

/** How well the map reads as it is arranged, in figures, each with what would make it better. */
@Component({
  selector: 'pt-legibility-figures',
  imports: [MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrls: ['./settings.scss', './legibility-figures.scss'],
  template: `
    <h4>How well it reads</h4>
    @if (figures().length === 0 && map.session.prepared()?.nodes?.length) {
      <p class="how" role="status">Being read …</p>
    }
    <dl>
      @for (figure of figures(); track figure.name) {
        <div [matTooltip]="figure.how">
          <dt>{{ figure.name }}</dt>
          <dd>{{ figure.value }}</dd>
          <dd class="advice">{{ figure.advice }}</dd>
        </div>
      }
    </dl>
  `,
})
export class LegibilityFigures implements OnDestroy {
  protected readonly map = injectMapEditor();
  /** How well the map reads; null while it is being read, or where there is nothing to read. */
  private readonly legibility = signal<Legibility | null>(null);
  private readonly reader = new LegibilityReader();
  protected readonly figures = computed<Figure[]>(() => {
    const data = this.map.session.data();
    const found = this.legibility();
    if (!data || !found) return [];
    const isHeavy = numbersOf(data.edges, 'weight').some((weight) => weight > 1);
    return [
      {
        name: 'ties that cross',
        value: `${formatCount(found.crossings)}${found.crossingsAreEstimated ? ' (estimated)' : ''}`,
        how: 'Pairs of ties that cross, drawn straight, and their share of all pairs that could.',
        advice: `${percent(found.crossingShare)} of those that could${found.crossingShare > 0.02 && isHeavy ? '; fewer with ties of more weight only' : ''}`,
      },
      {
        name: 'nodes that overlap',
        value: formatCount(found.overlaps),
        how: 'Pairs of nodes that lie on each other at scale 1.',
        advice: found.overlaps > 0 ? 'arrange with overlaps removed, or make nodes smaller' : '',
      },
      ...this.namesFigure(),
      {
        name: 'near means tied',
        value: percent(found.neighboursKept),
        how: 'Of the nearest nodes on the page, as many as a node has ties, the share that is tied with it; the mean over up to 300 nodes.',
        advice: found.neighboursKept < 0.25 ? 'low: groups are read better than single nodes' : '',
      },
      {
        name: 'distances that mislead',
        value: Number.isNaN(found.stress) ? '–' : found.stress.toFixed(2),
        how: 'Normalised stress, 0 to 1, from up to 60 nodes: how far distances on the page are from the steps in the network.',
        advice: found.stress > 0.2 ? 'arrange by distances, if these matter' : '',
      },
    ];
  });

  constructor() {
    effect(() => {
      const data = this.map.session.data();
      const map = this.map.session.prepared();
      const places = this.map.session.places();
      const isRunning = this.map.session.layout().what === 'running';
      this.legibility.set(null);
      if (!data || !map || !places || isRunning || map.nodes.length === 0) return this.reader.stop();
      void this.reader
        .read({
          graph: graphOf(data.nodeCount, data.edges),
          nodes: map.nodes,
          edges: map.edges,
          places: { ...places, radius: map.radius },
        })
        .then((found) => found && this.legibility.set(found));
    });
  }

  /** How many names find no place when all is in view. */
  private namesFigure(): Figure[] {
    const { session } = this.map;
    const [map, places, size] = [session.prepared(), session.places(), session.size()];
    if (!map || !places || map.description.names.count === 0) return [];
    const margin = marginFor(map.description.legend.corner);
    const view = fitView(places.x, places.y, map.radius, map.nodes, size, margin);
    const { wanted, without } = roomForNames({ map, ...places, view, size, theme: PAPER, focus: null });
    return [
      {
        name: 'names without room',
        value: `${formatCount(without)} of ${formatCount(wanted)}`,
        how: 'Names that would cover others or large nodes when the whole map is in view, and are left out.',
        advice: without > 0 ? 'fewer, shorter or smaller names; more when zoomed in' : '',
      },
    ];
  }

  ngOnDestroy(): void {
    this.reader.stop();
  }
}
