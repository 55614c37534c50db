import { ChangeDetectionStrategy, Component, effect, type ElementRef, input, viewChild } from '@angular/core';
import type { PreparedMap } from '@pebble/core';
import type { Places } from '../session/places';

const WIDTH = 132;
const HEIGHT = 92;

/** A small picture of an arrangement: its nodes as dots in their colours. */
@Component({
  selector: 'pt-trial-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<canvas #canvas></canvas>`,
  styles: `
    canvas {
      display: block;
      width: 132px;
      height: 92px;
    }
  `,
})
export class TrialPicture {
  readonly map = input.required<PreparedMap>();
  readonly places = input.required<Places>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');

  constructor() {
    effect(() => {
      const { nodes, colour, colours, radius } = this.map();
      const { x, y } = this.places();
      const canvas = this.canvas().nativeElement;
      const finer = window.devicePixelRatio || 1;
      canvas.width = WIDTH * finer;
      canvas.height = HEIGHT * finer;
      const pen = canvas.getContext('2d');
      if (!pen || nodes.length === 0) return;
      let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
      for (const v of nodes) {
        left = Math.min(left, x[v]);
        right = Math.max(right, x[v]);
        top = Math.min(top, y[v]);
        bottom = Math.max(bottom, y[v]);
      }
      const scale = Math.min(
        (WIDTH - 8) / Math.max(right - left, 1),
        (HEIGHT - 8) / Math.max(bottom - top, 1),
      );
      pen.scale(finer, finer);
      pen.translate(WIDTH / 2, HEIGHT / 2);
      for (const v of nodes) {
        pen.fillStyle = colours[colour[v]];
        pen.beginPath();
        const r = Math.max(0.9, radius[v] * scale);
        pen.arc((x[v] - (left + right) / 2) * scale, (y[v] - (top + bottom) / 2) * scale, r, 0, 2 * Math.PI);
        pen.fill();
      }
    });
  }
}
