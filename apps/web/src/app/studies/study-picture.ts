import {
  ChangeDetectionStrategy,
  Component,
  effect,
  type ElementRef,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import type { SmallPicture, Study } from '@pebble/contract';
import { of, catchError } from 'rxjs';
import { Api } from '../api/api';
import { ThemeChoice } from '../shared/theme';

const WIDTH = 150;
const HEIGHT = 100;

/** A small picture of a network's map, nodes only. */
@Component({
  selector: 'pt-study-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <canvas #canvas width="300" height="200" aria-hidden="true" [hidden]="!drawn()"></canvas>
    @if (!drawn()) {
      <span class="faint">no map yet</span>
    }
  `,
  styles: `
    :host {
      display: grid;
      align-items: center;
      align-self: stretch;
      border-right: 1px solid var(--line);
      background: var(--paper);
      border-radius: 8px 0 0 8px;
      width: 151px;
      min-height: 100px;
      justify-items: center;
    }
    canvas:not([hidden]) {
      width: 150px;
      height: 100px;
      display: block;
    }
  `,
})
export class StudyPicture {
  readonly study = input.required<Study>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly drawn = signal(false);
  private readonly api = inject(Api);
  private readonly theme = inject(ThemeChoice);

  constructor() {
    effect((onCleanup) => {
      const { id: study, latestNetwork: id } = this.study();
      const theme = this.theme.map();
      const canvas = this.canvas().nativeElement;
      if (id === null) return;
      const drawing = this.api
        .smallPicture({ study, network: id })
        .pipe(catchError(() => of(null)))
        .subscribe((picture) => {
          if (picture) draw(canvas, picture, theme.ground);
          this.drawn.set(picture !== null);
        });
      onCleanup(() => drawing.unsubscribe());
    });
  }
}

function draw(
  canvas: HTMLCanvasElement,
  { width, height, x, y, radius, colour, colours }: SmallPicture,
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
