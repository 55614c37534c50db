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
  untracked,
  viewChild,
} from '@angular/core';
import { fitView, type View } from '@pebble/core';
import { select } from 'd3-selection';
import { zoom, zoomIdentity, zoomTransform, type ZoomTransform } from 'd3-zoom';
import { ThemeChoice } from '../../shared/theme';
import { LegendSpots } from './legend-spots';
import { screenMargin } from './low-screen';
import { MapHands, STROKE } from './map-hands';
import { ScenePainter } from './scene-painter';
import { MapSession } from '../session/map-session';

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
  protected readonly drawing = this.session.isDrawing;
  /** Whether drawing on the map chooses nodes rather than moving the map. */
  readonly choosing = input(false);
  /** So many pixels of the map are covered from below. */
  readonly covered = input(0);
  readonly legendAsked = output();
  private readonly gesture = zoom<HTMLCanvasElement, unknown>().scaleExtent([0.04, 24]);
  private readonly element = (): HTMLCanvasElement => this.canvas().nativeElement;
  protected readonly hands: MapHands = new MapHands(
    this.element,
    this.session,
    () => this.painter,
    this.choosing,
  );
  protected readonly painter = new ScenePainter(
    this.element,
    this.session,
    this.theme,
    this.hands,
    () => this.follows,
  );
  protected readonly strokeWidth = STROKE;
  protected readonly lassoLine = computed(
    () =>
      this.hands
        .lasso()
        ?.map(([x, y]) => `${x},${y}`)
        .join(' ') ?? '',
  );
  private readonly watcher = new ResizeObserver(([entry]) => this.resized(entry.contentRect));
  private shown: string | null = null;
  private begun = 0;

  private readonly fontsCame = (): void => this.painter.schedule();

  constructor() {
    effect(() => this.start(this.canvas().nativeElement));
    effect(() => {
      const view = this.session.view();
      // The map beside this one moves it too.
      if (view) untracked(() => this.follow(view));
    });
    effect(() => {
      this.painter.watch();
      untracked(() => this.painter.schedule());
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
        if (this.session.view() === null || untracked(() => this.session.layout().what === 'running'))
          this.follows = true;
      }
      const begun = this.session.begun();
      if (begun !== this.begun) {
        this.begun = begun;
        this.follows = true;
      }
      if (this.follows) untracked(() => this.fit());
    });
  }

  /** Whether the map is fitted anew when it or its room changes. */
  private get follows(): boolean {
    return untracked(this.session.isFitted);
  }

  private set follows(isFitted: boolean) {
    if (isFitted !== this.follows) this.session.keepFitted(isFitted);
  }

  ngOnDestroy(): void {
    this.watcher.disconnect();
    document.fonts?.removeEventListener('loadingdone', this.fontsCame);
    this.painter.close();
  }

  fit(): void {
    const map = this.session.prepared();
    const places = this.hands.places();
    if (!map || !places) return;
    this.follows = true;
    const size = this.session.size();
    const margin = screenMargin(map.description, size, this.covered());
    this.apply(fitView(places.x, places.y, map.radius, map.nodes, size, margin));
  }

  /** Brings a node to the middle. */
  goTo(node: number): void {
    const places = this.hands.places();
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
      if (event.type.startsWith('touch'))
        return !this.hands.draws() || (event as TouchEvent).touches.length > 1;
      const { button, offsetX, offsetY, shiftKey } = event as MouseEvent;
      if (button !== 0 || shiftKey || this.hands.draws()) return false;
      return (
        this.painter.pick()?.nodeAt(offsetX, offsetY) == null &&
        this.painter.gripAt(offsetX, offsetY) === null
      );
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
