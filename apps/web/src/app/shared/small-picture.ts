import {
  ChangeDetectionStrategy,
  Component,
  effect,
  type ElementRef,
  inject,
  input,
  viewChild,
} from '@angular/core';
import type { SmallPicture as Picture } from '@pebble/contract';
import { ThemeChoice } from './theme';

const WIDTH = 150;
const HEIGHT = 100;

/** A map made small, nodes only; what it is stands beside it. */
@Component({
  selector: 'pt-small-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<canvas #canvas width="300" height="200" aria-hidden="true"></canvas>`,
  styles: `
    :host {
      display: block;
      width: 150px;
      height: 100px;
      line-height: 0;
    }
    canvas {
      width: 100%;
      height: 100%;
    }
  `,
})
export class SmallPicture {
  readonly picture = input.required<Picture>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly theme = inject(ThemeChoice);

  constructor() {
    effect(() => draw(this.canvas().nativeElement, this.picture(), this.theme.map().ground));
  }
}

function draw(
  canvas: HTMLCanvasElement,
  { width, height, x, y, radius, colour, colours }: Picture,
  ground: string,
): void {
  const pen = canvas.getContext('2d')!;
  pen.setTransform(2, 0, 0, 2, 0, 0);
  pen.fillStyle = ground;
  pen.fillRect(0, 0, WIDTH, HEIGHT);
  const scale = Math.min((WIDTH - 16) / Math.max(width, 1), (HEIGHT - 16) / Math.max(height, 1));
  x.forEach((at, i) => {
    pen.fillStyle = colours[colour[i]];
    pen.beginPath();
    pen.arc(
      WIDTH / 2 + (at - width / 2) * scale,
      HEIGHT / 2 + (y[i] - height / 2) * scale,
      Math.max(0.8, radius[i] * scale * 1.4),
      0,
      7,
    );
    pen.fill();
  });
}
