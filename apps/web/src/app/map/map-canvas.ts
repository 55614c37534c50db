import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  output,
  type OnDestroy,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import {
  buildScene,
  fitView,
  moveGrip,
  type Grip,
  nodesWithin,
  strokeOf,
  numbersOf,
  paintCanvas,
  Picker,
  toScreen,
  toggled,
  type LegendSpot,
  type Scene,
  type View,
} from '@pebble/core';
import { select } from 'd3-selection';
import { zoom, zoomIdentity, zoomTransform, type ZoomTransform } from 'd3-zoom';
import { ThemeChoice } from '../shared/theme';
import { LegendSpots } from './legend-spots';
import { nodeHover, tieHover, type HoverWords } from './hover-words';
import { PictureShelf } from './picture-shelf';
import { TiePicture } from './tie-picture';
import { onScreen, screenMargin } from './low-screen';
import { MapSession } from './session/map-session';
import type { Places } from './places';

/** What is told of the thing under the pointer, and where. */
interface Hover extends HoverWords {
  readonly x: number;
  readonly y: number;
}

/** Where a pointer went down, and on what. */
interface Press {
  readonly node: number | null;
  readonly grip: Grip | null;
  readonly x: number;
  readonly y: number;
  /** Whether a press begins a line, or adds to what is chosen. */
  readonly adds: boolean;
  moved: boolean;
}

/** While a gesture lasts, a picture that takes longer than this is moved rather than painted anew. */
const QUICK = 14;
const REST = 130;
/** While the map is arranged it is painted so seldom that this many times as long as painting takes is left for the reader. */
const LEFT = 2;

/** How wide a line is that is drawn by hand, in pixels. */
export const STROKE = 34;

/** The map itself: paints the scene, and takes gestures. */
@Component({
  selector: 'pt-map-canvas',
  imports: [LegendSpots],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './map-canvas.html',
  styleUrls: ['./map-overlays.scss', './map-canvas.scss'],
})
export class MapCanvas implements OnDestroy {
  private readonly session = inject(MapSession);
  private readonly theme = inject(ThemeChoice);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly hover = signal<Hover | null>(null);
  protected readonly spots = signal<readonly LegendSpot[]>([]);
  /** Nodes that are being dragged, and how far. */
  private readonly dragged = signal<{ nodes: readonly number[]; dx: number; dy: number } | null>(null);
  /** The line that is being drawn round nodes, on the screen. */
  protected readonly lasso = signal<readonly (readonly [number, number])[] | null>(null);
  protected readonly lassoLine = computed(
    () =>
      this.lasso()
        ?.map(([x, y]) => `${x},${y}`)
        .join(' ') ?? '',
  );
  protected readonly drawing = this.session.isDrawing;
  protected readonly strokeWidth = STROKE;
  /** Whether drawing on the map chooses nodes rather than moving the map. */
  readonly choosing = input(false);
  /** So many pixels of the map are covered from below. */
  readonly covered = input(0);
  readonly legendAsked = output();
  /** A name or a note that is being moved, and how far on the screen. */
  private readonly gripped = signal<{ grip: Grip; dx: number; dy: number } | null>(null);
  private grips: readonly Grip[] = [];
  private readonly gesture = zoom<HTMLCanvasElement, unknown>().scaleExtent([0.04, 24]);
  private readonly ties = new TiePicture();
  private readonly shelf = new PictureShelf(() => this.schedule());
  private readonly last = document.createElement('canvas');
  private lastView: View | null = null;
  private cost = 0;
  /** The time before which a map that is being arranged is not painted again. */
  private restsUntil = 0;
  private resting: ReturnType<typeof setTimeout> | undefined;
  private settle: ReturnType<typeof setTimeout> | undefined;
  private pending = 0;
  private picker: Picker | null = null;
  private pressed: Press | null = null;
  private readonly watcher = new ResizeObserver(([entry]) => this.resized(entry.contentRect));
  /** True until the reader has moved the map; then it is fitted anew while the layout runs. */
  private follows = true;
  private shown: string | null = null;
  private begun = 0;

  private readonly places = computed<Places | null>(() => {
    const places = this.session.places();
    const dragged = this.dragged();
    if (!places || !dragged) return places;
    const x = places.x.slice();
    const y = places.y.slice();
    for (const v of dragged.nodes) {
      x[v] += dragged.dx;
      y[v] += dragged.dy;
    }
    return { x, y };
  });

  private readonly isArranged = computed(() => this.session.layout().what !== 'running');

  private readonly fontsCame = (): void => this.schedule();

  constructor() {
    effect(() => this.start(this.canvas().nativeElement));
    effect(() => {
      const view = this.session.view();
      // The map beside this one moves it too.
      if (view) untracked(() => this.follow(view));
    });
    effect(() => {
      // Whatever the picture depends on.
      this.session.prepared();
      this.places();
      this.session.focus();
      this.session.size();
      this.theme.map();
      this.session.view();
      this.gripped();
      this.isArranged();
      untracked(() => this.schedule());
    });
    effect(() => {
      const data = this.session.data();
      const places = this.session.places();
      this.session.size();
      this.covered();
      if (!data || !places) return;
      // Columns may be added to the nodes of the same network.
      const network = untracked(this.session.network)?.id ?? null;
      if (network !== this.shown) {
        this.shown = network;
        this.follows =
          this.session.view() === null || untracked(() => this.session.layout().what === 'running');
      }
      const begun = this.session.begun();
      if (begun !== this.begun) {
        this.begun = begun;
        this.follows = true;
      }
      if (this.follows) untracked(() => this.fit());
    });
  }

  ngOnDestroy(): void {
    this.watcher.disconnect();
    document.fonts?.removeEventListener('loadingdone', this.fontsCame);
    clearTimeout(this.settle);
    clearTimeout(this.resting);
    this.ties.close();
    cancelAnimationFrame(this.pending);
  }

  fit(): void {
    const map = this.session.prepared();
    const places = this.places();
    if (!map || !places) return;
    this.follows = true;
    const size = this.session.size();
    const margin = screenMargin(map.description, size, this.covered());
    this.apply(fitView(places.x, places.y, map.radius, map.nodes, size, margin));
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

  private start(element: HTMLCanvasElement): void {
    this.watcher.observe(element);
    // Fonts of other scripts arrive when a name first needs them.
    document.fonts?.addEventListener('loadingdone', this.fontsCame);
    this.gesture.filter((event: Event) => {
      if (event.type === 'wheel') return true;
      // With two fingers the map is moved also while nodes are chosen.
      if (event.type.startsWith('touch')) return !this.draws() || (event as TouchEvent).touches.length > 1;
      const { button, offsetX, offsetY, shiftKey } = event as MouseEvent;
      if (button !== 0 || shiftKey || this.draws()) return false;
      return this.pick()?.nodeAt(offsetX, offsetY) == null && this.gripAt(offsetX, offsetY) === null;
    });
    this.gesture.on(
      'zoom',
      ({ transform, sourceEvent }: { transform: ZoomTransform; sourceEvent: Event | null }) => {
        if (sourceEvent) this.follows = false;
        this.session.lookAt({ scale: transform.k, x: transform.x, y: transform.y });
      },
    );
    select(element).call(this.gesture).on('dblclick.zoom', null);
    const view = untracked(this.session.view);
    if (view) this.apply(view);
  }

  private follow(view: View): void {
    const { k, x, y } = zoomTransform(this.canvas().nativeElement);
    if (k !== view.scale || x !== view.x || y !== view.y) {
      this.follows = false;
      this.apply(view);
    }
  }

  private apply(view: View): void {
    select(this.canvas().nativeElement).call(
      this.gesture.transform,
      zoomIdentity.translate(view.x, view.y).scale(view.scale),
    );
  }

  private resized({ width, height }: DOMRectReadOnly): void {
    if (width < 10 || height < 10) return;
    this.session.resize({ width: Math.round(width), height: Math.round(height) });
  }

  private schedule(): void {
    cancelAnimationFrame(this.pending);
    clearTimeout(this.resting);
    const rest = this.isArranged() || this.pressed ? 0 : this.restsUntil - performance.now();
    if (rest > 0) {
      this.resting = setTimeout(() => this.schedule(), rest);
      if (!this.follows) this.pending = requestAnimationFrame(() => this.moveLast());
    } else this.pending = requestAnimationFrame(() => this.frame());
  }

  /** Paints anew, or moves the last picture while a gesture lasts and painting is slow. */
  private frame(): void {
    this.ties.stop();
    const view = this.session.view();
    const before = this.lastView;
    const moving =
      view && before && (view.scale !== before.scale || view.x !== before.x || view.y !== before.y);
    clearTimeout(this.settle);
    if (moving && this.cost > QUICK && !this.dragged() && !this.gripped() && this.isArranged()) {
      this.moveLast();
      this.settle = setTimeout(() => this.paint(), REST);
    } else {
      this.paint();
    }
  }

  /** Shows the last picture where it would be by now. */
  private moveLast(): void {
    const view = this.session.view();
    const before = this.lastView;
    if (!view || !before) return;
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
    const gripped = this.gripped();
    const description = gripped
      ? moveGrip(map.description, gripped.grip, gripped.dx, gripped.dy, { places, view })
      : map.description;
    const scene = buildScene({
      map: { ...map, description: onScreen(description, size) },
      x: places.x,
      y: places.y,
      view,
      size,
      theme: this.theme.map(),
      focus: this.session.focus(),
    });
    const ties = this.ties.quick(scene, ratio, map.courses !== null);
    this.paintScene(pen, scene, ties);
    // What moves on in a moment is sketched: the cores are left to the arrangement.
    if (ties && this.isArranged())
      this.ties.sharpen(scene, ratio, (sharp) => this.paintScene(pen, scene, sharp));
    this.lastView = view;
    this.picker = null;
    this.grips = scene.grips;
    this.spots.set(scene.legend.spots);
    const ended = performance.now();
    this.cost = ended - started;
    this.restsUntil = ended + (this.cost > QUICK ? LEFT * this.cost : 0);
    element.dataset['paint'] = this.cost.toFixed(1);
  }

  /** Paints a picture, and keeps it to be moved while a gesture lasts. */
  private paintScene(pen: CanvasRenderingContext2D, scene: Scene, ties: CanvasImageSource | null): void {
    const element = this.canvas().nativeElement;
    const ratio = devicePixelRatio;
    pen.setTransform(ratio, 0, 0, ratio, 0, 0);
    paintCanvas(pen, scene, ties, this.shelf.of);
    this.last.width = element.width;
    this.last.height = element.height;
    this.last.getContext('2d', { alpha: false })!.drawImage(element, 0, 0);
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
    const { offsetX: x, offsetY: y } = event;
    const node = this.pick()?.nodeAt(x, y) ?? null;
    const adds = event.shiftKey || this.draws();
    const grip = node === null && !adds ? this.gripAt(x, y) : null;
    this.pressed = { node, grip, x, y, moved: false, adds };
    if (node !== null || grip || adds) this.canvas().nativeElement.setPointerCapture(event.pointerId);
  }

  protected move(event: PointerEvent): void {
    const { pressed } = this;
    const { offsetX: x, offsetY: y } = event;
    if (pressed && Math.hypot(x - pressed.x, y - pressed.y) > 3) pressed.moved = true;
    const view = this.session.view();
    if (!pressed) this.showHover(x, y);
    else if (pressed.moved && view && pressed.node !== null && !this.session.isDrawing()) {
      this.canvas().nativeElement.classList.add('dragging');
      this.hover.set(null);
      this.dragged.set({
        nodes: this.grabbed(pressed.node),
        dx: (x - pressed.x) / view.scale,
        dy: (y - pressed.y) / view.scale,
      });
    } else if (pressed.moved && pressed.grip) {
      this.canvas().nativeElement.classList.add('dragging');
      this.hover.set(null);
      this.gripped.set({ grip: pressed.grip, dx: x - pressed.x, dy: y - pressed.y });
    } else if (pressed.moved && pressed.adds) {
      this.hover.set(null);
      this.lasso.update((line) => [...(line ?? [[pressed.x, pressed.y] as const]), [x, y] as const]);
    }
  }

  protected release(event: PointerEvent): void {
    const { pressed } = this;
    this.pressed = null;
    this.canvas().nativeElement.classList.remove('dragging');
    const dragged = this.dragged();
    const line = this.lasso();
    if (dragged) {
      const places = this.session.places()!;
      this.dragged.set(null);
      const to = dragged.nodes.map((v) => [places.x[v] + dragged.dx, places.y[v] + dragged.dy] as const);
      this.session.moveNodes(dragged.nodes, to);
    } else if (this.gripped()) {
      this.putGripped();
    } else if (line) {
      this.lasso.set(null);
      if (this.session.isDrawing()) this.keepStroke(line);
      else this.chooseWithin(line);
    } else if (pressed?.grip && !pressed.moved) {
      this.readGrip(pressed.grip);
    } else if (pressed && !pressed.moved) {
      this.selectAt(event.offsetX, event.offsetY, pressed.adds);
    }
  }

  /** A gesture that the system took away leaves everything as it was. */
  protected cancel(): void {
    this.pressed = null;
    this.dragged.set(null);
    this.gripped.set(null);
    this.lasso.set(null);
  }

  /** The name or note under a point. */
  private gripAt(x: number, y: number): Grip | null {
    const isOn = (g: Grip): boolean =>
      x >= g.left && x <= g.left + g.width && y >= g.top && y <= g.top + g.height;
    return this.grips.findLast(isOn) ?? null;
  }

  private putGripped(): void {
    const gripped = this.gripped();
    const places = this.places();
    const view = this.session.view();
    this.gripped.set(null);
    if (!gripped || !places || !view) return;
    const description = moveGrip(this.session.description(), gripped.grip, gripped.dx, gripped.dy, {
      places,
      view,
    });
    this.session.describe(description);
  }

  /** A name reads its node, a note what it speaks of. */
  private readGrip({ what, of }: Grip): void {
    const at =
      what === 'name' ? { what: 'node' as const, node: of } : this.session.description().notes[of]?.at;
    if (at?.what === 'node') this.session.selectNode(at.node);
    else if (at) this.session.selectTie({ source: at.source, target: at.target });
  }

  /** What moves with a node: all that are chosen, if it is one of them. */
  private grabbed(node: number): readonly number[] {
    const chosen = this.session.chosen();
    return chosen.includes(node) ? chosen : [node];
  }

  /** Whether a line is drawn where the map would be moved otherwise. */
  private draws(): boolean {
    return this.choosing() || this.session.isDrawing();
  }

  /** Keeps a line that was drawn as a part of the map. */
  private keepStroke(line: readonly (readonly [number, number])[]): void {
    this.session.endDrawing();
    const map = this.session.prepared();
    const places = this.places();
    const view = this.session.view();
    if (!map || !places || !view || map.nodes.length === 0) return;
    const screen = toScreen({ map, x: places.x, y: places.y, view });
    const before = this.session.description();
    const strokes = [...before.regions.strokes, strokeOf(line, screen, map.nodes, STROKE, view.scale)];
    const description = { ...before, regions: { ...before.regions, strokes } };
    this.session.describe(description);
  }

  /** Adds the nodes within a line to those that are chosen. */
  private chooseWithin(line: readonly (readonly [number, number])[]): void {
    const map = this.session.prepared();
    const places = this.places();
    const view = this.session.view();
    if (!map || !places || !view) return;
    const inside = nodesWithin(line, toScreen({ map, x: places.x, y: places.y, view }), map.nodes);
    const nodes = [...new Set([...this.session.chosen(), ...inside])].sort((a, b) => a - b);
    this.session.chooseNodes(nodes);
  }

  private selectAt(x: number, y: number, adds: boolean): void {
    const node = this.pick()?.nodeAt(x, y) ?? null;
    if (adds) {
      if (node === null) return;
      this.session.chooseNodes(toggled(this.session.chosen(), node));
      return;
    }
    if (node !== null) {
      this.session.selectNode(node);
      return;
    }
    const edge = this.pick()?.edgeAt(x, y) ?? null;
    const data = this.session.data();
    if (edge === null || !data) {
      this.session.clearSelection();
      return;
    }
    const [source, target] = [numbersOf(data.edges, 'source')[edge], numbersOf(data.edges, 'target')[edge]];
    this.session.selectTie({ source, target });
  }

  private showHover(x: number, y: number): void {
    // Of a part of the time, as it was then.
    const data = this.session.prepared()?.network;
    const picker = this.pick();
    const node = picker?.nodeAt(x, y) ?? null;
    const edge = node === null ? (picker?.edgeAt(x, y, 3) ?? null) : null;
    const isOnGrip = node === null && this.gripAt(x, y) !== null;
    this.canvas().nativeElement.classList.toggle('node', node !== null || edge !== null || isOnGrip);
    if (!data || (node === null && edge === null)) {
      if (this.hover()) this.hover.set(null);
      return;
    }
    const words =
      node !== null ? nodeHover(data, node) : tieHover(data, edge!, this.session.network()?.directed ?? true);
    this.hover.set({ x, y, ...words });
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
        this.session.clearSelection();
        break;
      default:
        return;
    }
    event.preventDefault();
  }
}
