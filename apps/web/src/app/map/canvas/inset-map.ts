import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  untracked,
  viewChild,
} from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { fitView, type View } from '@pebble/core';
import { ThemeChoice } from '../../shared/theme';
import { MapSession } from '../session/map-session';

const SIZE = { width: 168, height: 112 };
const EDGE = { left: 8, right: 8, top: 8, bottom: 8 };
const DOT = 1.4;
/** It is shown when less than so much of the map is in view. */
const PART = 0.75;

/** The whole map small, with a frame round what is in view; the frame can be moved. */
@Component({
  selector: 'pt-inset-map',
  imports: [MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="inset" [class.away]="!isShown()" matTooltip="The whole map; drag to move over it">
      <canvas
        #canvas
        [width]="size.width * ratio"
        [height]="size.height * ratio"
        aria-hidden="true"
        (pointerdown)="press($event)"
        (pointermove)="move($event)"
      ></canvas>
      @if (frame(); as f) {
        <i [style.left.px]="f.x" [style.top.px]="f.y" [style.width.px]="f.width" [style.height.px]="f.height"></i>
      }
    </div>
  `,
  styles: `
    .inset {
      position: absolute;
      left: 12px;
      top: 12px;
      width: 168px;
      height: 112px;
      overflow: hidden;
      border: 1px solid var(--line);
      border-radius: 6px;
      background: var(--paper);
      touch-action: none;
      cursor: move;
    }
    .away {
      display: none;
    }
    canvas {
      width: 100%;
      height: 100%;
    }
    i {
      position: absolute;
      border: 1.5px solid var(--thread);
      background: color-mix(in srgb, var(--thread) 10%, transparent);
      pointer-events: none;
    }
  `,
})
export class InsetMap {
  private readonly session = inject(MapSession);
  private readonly theme = inject(ThemeChoice);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly size = SIZE;
  protected readonly ratio = devicePixelRatio;

  private readonly own = computed<View | null>(() => {
    const map = this.session.prepared();
    const places = this.session.places();
    if (!map || !places || map.nodes.length === 0) return null;
    return fitView(places.x, places.y, new Float32Array(places.x.length), map.nodes, SIZE, EDGE);
  });
  /** What of the map is in view, in pixels of the inset. */
  protected readonly frame = computed(() => {
    const [own, view, { width, height }] = [this.own(), this.session.view(), this.session.size()];
    if (!own || !view) return null;
    const scale = own.scale / view.scale;
    return {
      x: own.x - view.x * scale,
      y: own.y - view.y * scale,
      width: width * scale,
      height: height * scale,
    };
  });
  protected readonly isShown = computed(() => {
    const frame = this.frame();
    return frame !== null && frame.width < PART * SIZE.width && frame.height < SIZE.height;
  });

  constructor() {
    effect(() => {
      if (!this.isShown()) return;
      this.session.prepared();
      this.own();
      this.theme.map();
      untracked(() => this.paint());
    });
  }

  protected press(event: PointerEvent): void {
    this.canvas().nativeElement.setPointerCapture(event.pointerId);
    this.lookAt(event);
  }

  protected move(event: PointerEvent): void {
    if (event.buttons === 1) this.lookAt(event);
  }

  /** Brings the place under the pointer to the middle of the map. */
  private lookAt({ offsetX, offsetY }: PointerEvent): void {
    const [own, view, { width, height }] = [this.own(), this.session.view(), this.session.size()];
    if (!own || !view) return;
    const [x, y] = [(offsetX - own.x) / own.scale, (offsetY - own.y) / own.scale];
    this.session.lookAt({
      scale: view.scale,
      x: width / 2 - x * view.scale,
      y: height / 2 - y * view.scale,
    });
  }

  private paint(): void {
    const [map, places, own] = [this.session.prepared(), this.session.places(), this.own()];
    const pen = this.canvas().nativeElement.getContext('2d');
    if (!pen || !map || !places || !own) return;
    pen.setTransform(this.ratio, 0, 0, this.ratio, 0, 0);
    pen.fillStyle = this.theme.map().ground;
    pen.fillRect(0, 0, SIZE.width, SIZE.height);
    for (const v of map.paintOrder) {
      pen.fillStyle = map.colours[map.colour[v]];
      const [x, y] = [places.x[v] * own.scale + own.x, places.y[v] * own.scale + own.y];
      pen.fillRect(x - DOT / 2, y - DOT / 2, DOT, DOT);
    }
  }
}
