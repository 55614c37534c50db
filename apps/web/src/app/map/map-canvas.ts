import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  type OnDestroy,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import {
  buildScene,
  fitView,
  MARGIN,
  type Margin,
  formatValue,
  nodeLabels,
  numbersOf,
  paintCanvas,
  Picker,
  toScreen,
  type LegendSpot,
  type View,
} from '@pebble/core';
import { Store } from '@ngrx/store';
import { select } from 'd3-selection';
import { zoom, zoomIdentity, type ZoomTransform } from 'd3-zoom';
import { ThemeChoice } from '../shared/theme';
import { MapActions } from '../store/map.actions';
import { MapSession, type Places } from './map-session';
import { standing } from './tie-columns';

interface Hover {
  readonly x: number;
  readonly y: number;
  readonly title: string;
  readonly lines: readonly string[];
}

/** While a gesture lasts, a picture that takes longer than this is moved rather than painted anew. */
const QUICK = 14;
const REST = 130;

/** At the top of the screen stand the finder and the choice of networks. */
const SCREEN_MARGIN: Margin = { ...MARGIN, top: 62 };

/** The map itself: paints the scene, and takes gestures. */
@Component({
  selector: 'pt-map-canvas',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <canvas
      #canvas
      tabindex="0"
      role="application"
      aria-label="Network map. Arrow keys move it, plus and minus zoom, 0 shows all, Escape clears the selection."
      (pointerdown)="press($event)"
      (pointermove)="move($event)"
      (pointerup)="release($event)"
      (pointerleave)="hover.set(null)"
      (keydown)="key($event)"
    ></canvas>
    @for (spot of spots(); track spot.group) {
      <button
        class="spot"
        [style.left.px]="spot.x"
        [style.top.px]="spot.y"
        [style.width.px]="spot.width"
        [style.height.px]="spot.height"
        [attr.aria-label]="'Community ' + spot.label"
        [title]="'Read community ' + spot.label"
        (click)="pickCommunity(spot.group)"
      ></button>
    }
    @if (hover(); as h) {
      <div class="tip" [style.left.px]="h.x + 14" [style.top.px]="h.y + 12">
        <b>{{ h.title }}</b>
        @for (line of h.lines; track $index) {
          <span>{{ line }}</span>
        }
      </div>
    }
  `,
  styles: `
    :host {
      display: block;
      position: absolute;
      inset: 0;
      overflow: hidden;
    }
    canvas {
      width: 100%;
      height: 100%;
      display: block;
      touch-action: none;
      cursor: grab;
    }
    canvas.node {
      cursor: pointer;
    }
    canvas.dragging {
      cursor: grabbing;
    }
    .spot {
      position: absolute;
      border: 0;
      background: none;
      cursor: pointer;
      border-radius: 5px;
    }
    .spot:hover {
      background: color-mix(in srgb, var(--thread) 10%, transparent);
    }
    .tip {
      position: absolute;
      pointer-events: none;
      background: var(--sheet);
      border: 1px solid var(--line);
      border-radius: 6px;
      padding: 5px 10px;
      font-size: 13px;
      box-shadow: 0 4px 14px #1e2a3222;
      display: flex;
      flex-direction: column;
      max-width: 260px;
      overflow-wrap: anywhere;
    }
    .tip span {
      color: var(--soft);
    }
  `,
})
export class MapCanvas implements OnDestroy {
  private readonly session = inject(MapSession);
  private readonly store = inject(Store);
  private readonly theme = inject(ThemeChoice);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly hover = signal<Hover | null>(null);
  protected readonly spots = signal<readonly LegendSpot[]>([]);
  /** Places while a node is dragged. */
  private readonly dragged = signal<{ node: number; x: number; y: number } | null>(null);
  private readonly gesture = zoom<HTMLCanvasElement, unknown>().scaleExtent([0.04, 24]);
  private readonly last = document.createElement('canvas');
  private lastView: View | null = null;
  private cost = 0;
  private settle: ReturnType<typeof setTimeout> | undefined;
  private pending = 0;
  private picker: Picker | null = null;
  private pressed: { node: number | null; x: number; y: number; moved: boolean } | null = null;
  private readonly watcher = new ResizeObserver(([entry]) => this.resized(entry.contentRect));
  /** True until the reader has moved the map; then it is fitted anew while the layout runs. */
  private follows = true;
  private shownTies: unknown = null;

  private readonly places = computed<Places | null>(() => {
    const places = this.session.places();
    const dragged = this.dragged();
    if (!places || !dragged) return places;
    const x = places.x.slice();
    const y = places.y.slice();
    x[dragged.node] = dragged.x;
    y[dragged.node] = dragged.y;
    return { x, y };
  });

  constructor() {
    effect(() => this.start(this.canvas().nativeElement));
    effect(() => {
      // Whatever the picture depends on.
      this.session.prepared();
      this.places();
      this.session.focus();
      this.session.size();
      this.theme.map();
      this.session.view();
      untracked(() => this.schedule());
    });
    effect(() => {
      const data = this.session.data();
      const places = this.session.places();
      this.session.size();
      if (!data || !places) return;
      // Columns may be added to the nodes of the same network.
      if (data.edges !== this.shownTies) {
        this.shownTies = data.edges;
        this.follows =
          this.session.view() === null || untracked(() => this.session.layout().what === 'running');
      }
      if (this.follows) untracked(() => this.fit());
    });
  }

  ngOnDestroy(): void {
    this.watcher.disconnect();
    clearTimeout(this.settle);
    cancelAnimationFrame(this.pending);
  }

  fit(): void {
    const map = this.session.prepared();
    const places = this.places();
    if (!map || !places) return;
    this.follows = true;
    const size = this.session.size();
    this.apply(fitView(places.x, places.y, map.radius, map.nodes, size, SCREEN_MARGIN));
  }

  /** Brings a node to the middle. */
  goTo(node: number): void {
    const places = this.places();
    if (!places) return;
    const { width, height } = this.session.size();
    const scale = Math.max(this.session.view()?.scale ?? 1, 1.2);
    this.follows = false;
    this.apply({ scale, x: width / 2 - places.x[node] * scale, y: height / 2 - places.y[node] * scale });
  }

  zoomBy(factor: number): void {
    this.follows = false;
    select(this.canvas().nativeElement).call(this.gesture.scaleBy, factor);
  }

  protected pickCommunity(community: number): void {
    this.store.dispatch(MapActions.communitySelected({ community }));
  }

  private start(element: HTMLCanvasElement): void {
    this.watcher.observe(element);
    this.gesture.filter((event: Event) => {
      if (event.type === 'wheel' || event.type.startsWith('touch')) return true;
      const { button, offsetX, offsetY } = event as MouseEvent;
      return button === 0 && this.pick()?.nodeAt(offsetX, offsetY) == null;
    });
    this.gesture.on(
      'zoom',
      ({ transform, sourceEvent }: { transform: ZoomTransform; sourceEvent: Event | null }) => {
        if (sourceEvent) this.follows = false;
        this.session.view.set({ scale: transform.k, x: transform.x, y: transform.y });
      },
    );
    select(element).call(this.gesture).on('dblclick.zoom', null);
    const view = untracked(this.session.view);
    if (view) this.apply(view);
  }

  private apply(view: View): void {
    select(this.canvas().nativeElement).call(
      this.gesture.transform,
      zoomIdentity.translate(view.x, view.y).scale(view.scale),
    );
  }

  private resized({ width, height }: DOMRectReadOnly): void {
    if (width < 10 || height < 10) return;
    this.session.size.set({ width: Math.round(width), height: Math.round(height) });
  }

  private schedule(): void {
    cancelAnimationFrame(this.pending);
    this.pending = requestAnimationFrame(() => this.frame());
  }

  /** Paints anew, or moves the last picture while a gesture lasts and painting is slow. */
  private frame(): void {
    const view = this.session.view();
    const before = this.lastView;
    const moving =
      view && before && (view.scale !== before.scale || view.x !== before.x || view.y !== before.y);
    clearTimeout(this.settle);
    if (moving && this.cost > QUICK && !this.dragged() && this.session.layout().what !== 'running') {
      this.moveLast(view, before);
      this.settle = setTimeout(() => this.paint(), REST);
    } else {
      this.paint();
    }
  }

  private moveLast(view: View, before: View): void {
    const element = this.canvas().nativeElement;
    const pen = element.getContext('2d', { alpha: false })!;
    const ratio = devicePixelRatio;
    const factor = view.scale / before.scale;
    pen.setTransform(1, 0, 0, 1, 0, 0);
    pen.fillStyle = this.theme.map().ground;
    pen.fillRect(0, 0, element.width, element.height);
    pen.setTransform(
      factor,
      0,
      0,
      factor,
      (view.x - before.x * factor) * ratio,
      (view.y - before.y * factor) * ratio,
    );
    pen.drawImage(this.last, 0, 0);
  }

  private paint(): void {
    const started = performance.now();
    const map = this.session.prepared();
    const places = this.places();
    const view = this.session.view();
    const size = this.session.size();
    const element = this.canvas().nativeElement;
    const ratio = devicePixelRatio;
    if (element.width !== size.width * ratio || element.height !== size.height * ratio) {
      element.width = size.width * ratio;
      element.height = size.height * ratio;
    }
    const pen = element.getContext('2d', { alpha: false })!;
    pen.setTransform(ratio, 0, 0, ratio, 0, 0);
    if (!map || !places || !view) {
      pen.fillStyle = this.theme.map().ground;
      pen.fillRect(0, 0, size.width, size.height);
      this.spots.set([]);
      return;
    }
    const scene = buildScene({
      map,
      x: places.x,
      y: places.y,
      view,
      size,
      theme: this.theme.map(),
      focus: this.session.focus(),
    });
    paintCanvas(pen, scene);
    this.last.width = element.width;
    this.last.height = element.height;
    this.last.getContext('2d', { alpha: false })!.drawImage(element, 0, 0);
    this.lastView = view;
    this.picker = null;
    this.spots.set(scene.legend.spots);
    this.cost = performance.now() - started;
    element.dataset['paint'] = this.cost.toFixed(1);
  }

  /** The picker for what is shown, built when it is first needed. */
  private pick(): Picker | null {
    const map = this.session.prepared();
    const places = this.places();
    const view = this.session.view();
    if (!map || !places || !view) return null;
    return (this.picker ??= new Picker(map, toScreen({ map, x: places.x, y: places.y, view })));
  }

  protected press(event: PointerEvent): void {
    if (event.button !== 0) return;
    const node = this.pick()?.nodeAt(event.offsetX, event.offsetY) ?? null;
    this.pressed = { node, x: event.offsetX, y: event.offsetY, moved: false };
    if (node !== null) this.canvas().nativeElement.setPointerCapture(event.pointerId);
  }

  protected move(event: PointerEvent): void {
    const { pressed } = this;
    if (pressed && Math.hypot(event.offsetX - pressed.x, event.offsetY - pressed.y) > 3) pressed.moved = true;
    const view = this.session.view();
    if (pressed?.node != null && pressed.moved && view) {
      this.canvas().nativeElement.classList.add('dragging');
      this.hover.set(null);
      this.dragged.set({
        node: pressed.node,
        x: (event.offsetX - view.x) / view.scale,
        y: (event.offsetY - view.y) / view.scale,
      });
      return;
    }
    if (!pressed) this.showHover(event.offsetX, event.offsetY);
  }

  protected release(event: PointerEvent): void {
    const { pressed } = this;
    this.pressed = null;
    this.canvas().nativeElement.classList.remove('dragging');
    const dragged = this.dragged();
    if (dragged) {
      const places = this.session.places()!;
      this.dragged.set(null);
      this.store.dispatch(
        MapActions.nodeMoved({
          node: dragged.node,
          from: [places.x[dragged.node], places.y[dragged.node]],
          to: [dragged.x, dragged.y],
        }),
      );
    } else if (pressed && !pressed.moved) {
      this.selectAt(event.offsetX, event.offsetY);
    }
  }

  private selectAt(x: number, y: number): void {
    const node = this.pick()?.nodeAt(x, y) ?? null;
    if (node !== null) {
      this.store.dispatch(MapActions.nodeSelected({ node }));
      return;
    }
    const edge = this.pick()?.edgeAt(x, y) ?? null;
    const data = this.session.data();
    if (edge === null || !data) {
      this.store.dispatch(MapActions.selectionCleared());
      return;
    }
    const [source, target] = [numbersOf(data.edges, 'source')[edge], numbersOf(data.edges, 'target')[edge]];
    this.store.dispatch(MapActions.tieSelected({ source, target }));
  }

  private showHover(x: number, y: number): void {
    const data = this.session.data();
    const picker = this.pick();
    const node = picker?.nodeAt(x, y) ?? null;
    const edge = node === null ? (picker?.edgeAt(x, y, 3) ?? null) : null;
    this.canvas().nativeElement.classList.toggle('node', node !== null || edge !== null);
    if (!data || (node === null && edge === null)) {
      if (this.hover()) this.hover.set(null);
      return;
    }
    const handles = nodeLabels(data.nodes);
    if (node !== null) {
      const value = (name: string): string => formatValue(numbersOf(data.nodes, name)[node]);
      const lines = [
        'messages' in data.nodes
          ? `addressed by ${value('inDegree')}, addresses ${value('outDegree')}`
          : `${standing(data).words} ${value(standing(data).column)}`,
        `betweenness ${value('betweenness')} · community ${value('community')}`,
      ];
      this.hover.set({ x, y, title: handles[node], lines });
    } else {
      const end = (name: string): string => handles[numbersOf(data.edges, name)[edge!]];
      const weight = numbersOf(data.edges, 'weight')[edge!];
      this.hover.set({
        x,
        y,
        title: `${end('source')} ${this.session.network()?.directed === false ? '–' : '→'} ${end('target')}`,
        lines: [
          'messages' in data.nodes
            ? `${formatValue(weight)} ${weight === 1 ? 'message' : 'messages'}`
            : `weight ${formatValue(weight)}`,
        ],
      });
    }
  }

  protected key(event: KeyboardEvent): void {
    const view = this.session.view();
    const step = 60;
    const pan = (dx: number, dy: number): void => {
      this.follows = false;
      if (view) this.apply({ ...view, x: view.x + dx, y: view.y + dy });
    };
    switch (event.key) {
      case 'ArrowLeft':
        pan(step, 0);
        break;
      case 'ArrowRight':
        pan(-step, 0);
        break;
      case 'ArrowUp':
        pan(0, step);
        break;
      case 'ArrowDown':
        pan(0, -step);
        break;
      case '+':
      case '=':
        this.zoomBy(1.3);
        break;
      case '-':
        this.zoomBy(1 / 1.3);
        break;
      case '0':
        this.fit();
        break;
      case 'Escape':
        this.store.dispatch(MapActions.selectionCleared());
        break;
      default:
        return;
    }
    event.preventDefault();
  }
}
