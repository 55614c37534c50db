import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  type OnDestroy,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import type { Network } from '@pebble/contract';
import {
  buildScene,
  fitView,
  focusOnNodes,
  paintCanvas,
  Picker,
  toScreen,
  viewBeside,
  middleOfFree,
  type FittedView,
  type Size,
  type View,
} from '@pebble/core';
import { select } from 'd3-selection';
import { zoom, zoomIdentity, zoomTransform, type ZoomTransform } from 'd3-zoom';
import { ThemeChoice } from '../../shared/theme';
import { BesideSession } from '../session/beside-session';
import { screenMargin } from './low-screen';
import { PictureShelf } from './picture-shelf';
import { MapSession } from '../session/map-session';
import { Busy } from '../../shared/busy';
import { CountPipe } from '../../shared/count-pipe';

/** Above the picture stands what it is of. */
const ROOM = { top: 110, bottom: 30 };
/** On the left stands the short legend. */
const LEGEND = 130;
const NEAR = 0.001;

/** A second map beside the open one: it moves with it, and shows what is chosen there. */
@Component({
  selector: 'pt-beside-map',
  imports: [CountPipe, MatTooltip, MatInput, MatFormField, MatCheckbox, MatButton, Busy],
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [BesideSession],
  templateUrl: './beside-map.html',
  styleUrls: ['./map-overlays.scss', './beside-map.scss'],
})
export class BesideMap implements OnDestroy {
  readonly networks = input.required<readonly Network[]>();
  readonly closed = output();
  protected readonly beside = inject(BesideSession);
  private readonly session = inject(MapSession);
  private readonly theme = inject(ThemeChoice);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly tip = signal<{ x: number; y: number; text: string } | null>(null);
  private readonly size = signal<Size>({ width: 400, height: 400 });
  private readonly gesture = zoom<HTMLCanvasElement, unknown>().scaleExtent([0.01, 60]);
  private readonly watcher = new ResizeObserver(
    ([
      {
        contentRect: { width, height },
      },
    ]) => {
      if (width > 10 && height > 10) this.size.set({ width: Math.round(width), height: Math.round(height) });
    },
  );
  private readonly shelf = new PictureShelf(() => this.schedule());
  private pending = 0;
  private pressed: { x: number; y: number } | null = null;

  /** Networks that can be shown beside the open one. */
  protected readonly others = computed(() =>
    this.networks().filter(({ id, state }) => id !== this.session.network()?.id && state === 'measured'),
  );
  /** The view that shows all of the open map. */
  private readonly fitted = computed<FittedView | null>(() => {
    const map = this.session.prepared();
    const places = this.session.places();
    if (!map || !places) return null;
    const size = this.session.size();
    const margin = screenMargin(map.description, size, 0);
    return {
      view: fitView(places.x, places.y, map.radius, map.nodes, size, margin),
      middle: middleOfFree(size, margin),
    };
  });
  /** The view that shows all of this one; where it has the places of the open map, all of that one's. */
  private readonly ownFit = computed<FittedView | null>(() => {
    const isSame = this.beside.samePlaces();
    const own = this.beside.prepared();
    const map = isSame ? this.session.prepared() : own;
    const places = isSame ? this.session.places() : this.beside.places();
    if (!own || !map || !places) return null;
    const margin = { ...ROOM, left: LEGEND, right: 30 };
    return {
      view: fitView(places.x, places.y, map.radius, map.nodes, this.size(), margin),
      middle: middleOfFree(this.size(), margin),
    };
  });
  private readonly view = computed<View | null>(() => {
    const [view, fitted, own] = [this.session.view(), this.fitted(), this.ownFit()];
    return view && fitted && own ? viewBeside(view, fitted, own, this.beside.samePlaces()) : null;
  });
  private readonly focus = computed(() => {
    const [data, rows, chosen] = [this.beside.data(), this.beside.neighbours(), this.beside.chosen()];
    return data && rows && chosen.length > 0 ? focusOnNodes(data, rows, chosen) : null;
  });

  constructor() {
    effect(() => this.start(this.canvas().nativeElement));
    effect(() => {
      const first = this.others().at(0);
      if (first && !untracked(this.beside.network)) untracked(() => void this.beside.open(first.id));
    });
    effect(() => {
      const view = this.view();
      this.focus();
      this.theme.map();
      this.size();
      untracked(() => {
        if (view) this.follow(view);
        this.schedule();
      });
    });
  }

  ngOnDestroy(): void {
    this.watcher.disconnect();
    cancelAnimationFrame(this.pending);
  }

  private start(element: HTMLCanvasElement): void {
    this.watcher.observe(element);
    this.gesture.on(
      'zoom',
      ({ transform, sourceEvent }: { transform: ZoomTransform; sourceEvent: Event | null }) => {
        const [fitted, own] = [this.fitted(), this.ownFit()];
        if (!sourceEvent || !fitted || !own) return;
        // What is done here is done on the open map, which this one follows.
        const view = { scale: transform.k, x: transform.x, y: transform.y };
        this.session.lookAt(viewBeside(view, own, fitted, this.beside.samePlaces()));
      },
    );
    select(element).call(this.gesture).on('dblclick.zoom', null);
  }

  private follow(view: View): void {
    const element = this.canvas().nativeElement;
    const { k, x, y } = zoomTransform(element);
    const isThere =
      Math.abs(k / view.scale - 1) < NEAR && Math.abs(x - view.x) < 0.5 && Math.abs(y - view.y) < 0.5;
    if (isThere) return;
    select(element).call(this.gesture.transform, zoomIdentity.translate(view.x, view.y).scale(view.scale));
  }

  private schedule(): void {
    cancelAnimationFrame(this.pending);
    this.pending = requestAnimationFrame(() => this.paint());
  }

  private paint(): void {
    const element = this.canvas().nativeElement;
    const size = this.size();
    const ratio = devicePixelRatio;
    element.width = size.width * ratio;
    element.height = size.height * ratio;
    const pen = element.getContext('2d', { alpha: false })!;
    pen.setTransform(ratio, 0, 0, ratio, 0, 0);
    const [map, places, view] = [this.beside.prepared(), this.beside.places(), this.view()];
    if (!map || !places || !view) {
      pen.fillStyle = this.theme.map().ground;
      pen.fillRect(0, 0, size.width, size.height);
      return;
    }
    const { x, y } = places;
    const scene = buildScene({ map, x, y, view, size, theme: this.theme.map(), focus: this.focus() });
    paintCanvas(pen, scene, null, this.shelf.of);
  }

  private nodeAt(x: number, y: number): number | null {
    const [map, places, view] = [this.beside.prepared(), this.beside.places(), this.view()];
    if (!map || !places || !view) return null;
    return new Picker(map, toScreen({ map, x: places.x, y: places.y, view })).nodeAt(x, y);
  }

  protected press({ offsetX: x, offsetY: y }: PointerEvent): void {
    this.pressed = { x, y };
  }

  protected move({ offsetX: x, offsetY: y, buttons }: PointerEvent): void {
    const node = buttons === 0 ? this.nodeAt(x, y) : null;
    if (node === null) this.tip.set(null);
    else {
      const text = this.beside.labels()[node];
      this.tip.set({ x, y, text: this.beside.nodeByName().has(text) ? text : `${text}, only here` });
    }
  }

  /** Selects the node of the same name on the open map. */
  protected release({ offsetX: x, offsetY: y }: PointerEvent): void {
    const { pressed } = this;
    this.pressed = null;
    if (!pressed || Math.hypot(x - pressed.x, y - pressed.y) > 3) return;
    const node = this.nodeAt(x, y);
    const other = node === null ? undefined : this.beside.nodeByName().get(this.beside.labels()[node]);
    if (other !== undefined) this.session.selectNode(other);
    else this.session.clearSelection();
  }
}
