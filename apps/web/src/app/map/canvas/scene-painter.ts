import { computed, signal, type Signal } from '@angular/core';
import {
  buildScene,
  moveGrip,
  paintCanvas,
  Picker,
  toScreen,
  type Grip,
  type LegendSpot,
  type Scene,
  type View,
} from '@pebble/core';
import type { ThemeChoice } from '../../shared/theme';
import { onScreen } from './low-screen';
import { PictureShelf } from './picture-shelf';
import type { Places } from '../session/places';
import type { MapSession } from '../session/map-session';
import { TiePicture } from './tie-picture';

/** A name or a note that is being moved, and how far on the screen. */
export interface Gripped {
  readonly grip: Grip;
  readonly dx: number;
  readonly dy: number;
}

/** What hands do with the map at the moment. */
export interface InHand {
  /** Places with what is being dragged. */
  readonly places: Signal<Places | null>;
  readonly gripped: Signal<Gripped | null>;
  /** Whether something is being moved, or a pointer is down. */
  readonly isMoving: () => boolean;
  readonly isPressed: () => boolean;
}

/** While a gesture lasts, a picture that takes longer than this is moved rather than painted anew. */
const QUICK = 14;
const REST = 130;
/** While the map is arranged it is painted so seldom that this many times as long as painting takes is left for the reader. */
const LEFT = 2;

/** Paints the map on a canvas: anew, or by moving the last picture while a gesture lasts and painting is slow. */
export class ScenePainter {
  readonly spots = signal<readonly LegendSpot[]>([]);
  private readonly ties = new TiePicture();
  private readonly shelf = new PictureShelf(() => this.schedule());
  private readonly last = document.createElement('canvas');
  private readonly isArranged = computed(() => this.session.layout().what !== 'running');
  private lastView: View | null = null;
  private cost = 0;
  /** The time before which a map that is being arranged is not painted again. */
  private restsUntil = 0;
  private resting: ReturnType<typeof setTimeout> | undefined;
  private settle: ReturnType<typeof setTimeout> | undefined;
  private pending = 0;
  private picker: Picker | null = null;
  private grips: readonly Grip[] = [];

  /** @param follows whether the map is fitted while it is arranged */
  constructor(
    private readonly canvas: () => HTMLCanvasElement,
    private readonly session: MapSession,
    private readonly theme: ThemeChoice,
    private readonly hand: InHand,
    private readonly follows: () => boolean,
  ) {}

  /** Reads whatever the picture depends on, so that an effect knows of it. */
  watch(): void {
    this.session.prepared();
    this.hand.places();
    this.session.focus();
    this.session.size();
    this.theme.map();
    this.session.view();
    this.hand.gripped();
    this.isArranged();
  }

  close(): void {
    clearTimeout(this.settle);
    clearTimeout(this.resting);
    this.ties.close();
    cancelAnimationFrame(this.pending);
  }

  schedule(): void {
    cancelAnimationFrame(this.pending);
    clearTimeout(this.resting);
    const rest = this.isArranged() || this.hand.isPressed() ? 0 : this.restsUntil - performance.now();
    if (rest > 0) {
      this.resting = setTimeout(() => this.schedule(), rest);
      if (!this.follows()) this.pending = requestAnimationFrame(() => this.moveLast());
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
    if (moving && this.cost > QUICK && !this.hand.isMoving() && this.isArranged()) {
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
    const element = this.canvas();
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
    const places = this.hand.places();
    const view = this.session.view();
    const size = this.session.size();
    const element = this.canvas();
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
    const gripped = this.hand.gripped();
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
    const element = this.canvas();
    const ratio = devicePixelRatio;
    pen.setTransform(ratio, 0, 0, ratio, 0, 0);
    paintCanvas(pen, scene, ties, this.shelf.of);
    this.last.width = element.width;
    this.last.height = element.height;
    this.last.getContext('2d', { alpha: false })!.drawImage(element, 0, 0);
  }

  /** The picker for what is shown, built when it is first needed. */
  pick(): Picker | null {
    const map = this.session.prepared();
    const places = this.hand.places();
    const view = this.session.view();
    if (!map || !places || !view) return null;
    return (this.picker ??= new Picker(map, toScreen({ map, x: places.x, y: places.y, view })));
  }

  /** The name or note under a point. */
  gripAt(x: number, y: number): Grip | null {
    const isOn = (g: Grip): boolean =>
      x >= g.left && x <= g.left + g.width && y >= g.top && y <= g.top + g.height;
    return this.grips.findLast(isOn) ?? null;
  }
}
