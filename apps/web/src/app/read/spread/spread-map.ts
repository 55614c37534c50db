import {
  ChangeDetectionStrategy,
  Component,
  effect,
  type ElementRef,
  inject,
  input,
  type OnDestroy,
  output,
  signal,
  viewChild,
} from '@angular/core';
import type { Spread } from '@pebble/contract';
import { ThemeChoice } from '../../shared/theme';

/** Room round the map, and the size of nodes, in pixels. */
const EDGE = 14;
const SMALL = 1.3;
const LIT = 3.4;
/** A press this near to a node is on it. */
const NEAR = 9;

/** The map of a network, its nodes in their places: those that had it until a step are lit, in the colour of their group, with a line from whom. */
@Component({
  selector: 'pt-spread-map',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<canvas #host role="img" [attr.aria-label]="label()" (click)="pick($event)"></canvas>`,
  styles: `
    :host {
      display: block;
      height: 340px;
      min-width: 0;
    }
    canvas {
      width: 100%;
      height: 100%;
      cursor: pointer;
    }
  `,
})
export class SpreadMap implements OnDestroy {
  /** x and y of each node, one after the other. */
  readonly positions = input.required<Float32Array>();
  readonly steps = input.required<Spread['steps']>();
  /** So many steps are shown. */
  readonly until = input.required<number>();
  readonly colourOf = input.required<(group: string) => string>();
  readonly label = input.required<string>();
  readonly picked = output<Spread['steps'][number]>();
  private readonly host = viewChild.required<ElementRef<HTMLCanvasElement>>('host');
  private readonly theme = inject(ThemeChoice);
  private readonly size = signal({ width: 0, height: 0 });
  private readonly watcher = new ResizeObserver(([{ contentRect }]) =>
    this.size.set({ width: contentRect.width, height: contentRect.height }),
  );

  constructor() {
    effect((onCleanup) => {
      const canvas = this.host().nativeElement;
      this.watcher.observe(canvas);
      onCleanup(() => this.watcher.unobserve(canvas));
    });
    effect(() => this.paint());
  }

  ngOnDestroy(): void {
    this.watcher.disconnect();
  }

  /** From places in the network to pixels, the whole of it in view. */
  private toPixels(): (node: number) => readonly [x: number, y: number] {
    const positions = this.positions();
    const { width, height } = this.size();
    let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
    for (let i = 0; i < positions.length; i += 2) {
      left = Math.min(left, positions[i]);
      right = Math.max(right, positions[i]);
      top = Math.min(top, positions[i + 1]);
      bottom = Math.max(bottom, positions[i + 1]);
    }
    const scale = Math.min(
      (width - 2 * EDGE) / Math.max(right - left, 1e-9),
      (height - 2 * EDGE) / Math.max(bottom - top, 1e-9),
    );
    const [x, y] = [(width - scale * (left + right)) / 2, (height - scale * (top + bottom)) / 2];
    return (node) => [x + scale * positions[2 * node], y + scale * positions[2 * node + 1]];
  }

  private paint(): void {
    const canvas = this.host().nativeElement;
    const { width, height } = this.size();
    const context = canvas.getContext('2d');
    if (!context || width === 0) return;
    const { soft, ink, ground } = this.theme.map();
    const dense = window.devicePixelRatio;
    canvas.width = Math.round(width * dense);
    canvas.height = Math.round(height * dense);
    context.scale(dense, dense);
    const at = this.toPixels();
    const nodes = this.positions().length / 2;
    context.globalAlpha = 0.35;
    context.fillStyle = soft;
    for (let v = 0; v < nodes; v++) {
      const [x, y] = at(v);
      context.fillRect(x - SMALL / 2, y - SMALL / 2, SMALL, SMALL);
    }
    const steps = this.steps();
    const shown = steps.slice(0, this.until()).filter(({ node }) => node !== null);
    context.globalAlpha = 0.4;
    context.strokeStyle = ink;
    context.lineWidth = 0.8;
    context.beginPath();
    for (const { node, from } of shown) {
      const source = from === null ? null : steps[from].node;
      if (source === null) continue;
      context.moveTo(...at(source));
      context.lineTo(...at(node!));
    }
    context.stroke();
    context.globalAlpha = 1;
    context.strokeStyle = ground;
    context.lineWidth = 1;
    const colourOf = this.colourOf();
    for (const { node, group } of shown) {
      context.fillStyle = colourOf(group ?? '');
      context.beginPath();
      context.arc(...at(node!), LIT, 0, 2 * Math.PI);
      context.fill();
      context.stroke();
    }
    // The last one stands out.
    const last = shown.at(-1);
    if (last) {
      context.strokeStyle = ink;
      context.lineWidth = 1.6;
      context.beginPath();
      context.arc(...at(last.node!), LIT + 3, 0, 2 * Math.PI);
      context.stroke();
    }
  }

  protected pick({ offsetX, offsetY }: MouseEvent): void {
    const at = this.toPixels();
    let [best, nearest]: [Spread['steps'][number] | null, number] = [null, NEAR];
    for (const step of this.steps().slice(0, this.until())) {
      if (step.node === null) continue;
      const [x, y] = at(step.node);
      const distance = Math.hypot(x - offsetX, y - offsetY);
      if (distance < nearest) [best, nearest] = [step, distance];
    }
    if (best) this.picked.emit(best);
  }
}
