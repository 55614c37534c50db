import {
  ChangeDetectionStrategy,
  Component,
  effect,
  type ElementRef,
  inject,
  input,
  viewChild,
} from '@angular/core';
import { fromArrow, prepareMap } from '@pebble/core';
import { forkJoin, of, catchError } from 'rxjs';
import { Api } from '../api/api';
import { ThemeChoice } from '../shared/theme';

const WIDTH = 150;
const HEIGHT = 100;

/** A small picture of a network's map, nodes only. */
@Component({
  selector: 'pt-study-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<canvas #canvas width="300" height="200" aria-hidden="true"></canvas>',
  styles:
    'canvas { width: 150px; height: 100px; display: block; border-right: 1px solid var(--line); background: var(--paper); border-radius: 8px 0 0 8px; }',
})
export class StudyPicture {
  readonly network = input.required<string | null>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly api = inject(Api);
  private readonly theme = inject(ThemeChoice);

  constructor() {
    effect((onCleanup) => {
      const network = this.network();
      const theme = this.theme.map();
      const canvas = this.canvas().nativeElement;
      if (!network) return;
      const drawing = forkJoin([
        this.api.table(network, 'nodes'),
        this.api.table(network, 'edges'),
        this.api.positions(network),
        this.api.savedMap(network),
      ])
        .pipe(catchError(() => of(null)))
        .subscribe((parts) => {
          if (!parts) return;
          const nodes = fromArrow(new Uint8Array(parts[0]));
          const edges = fromArrow(new Uint8Array(parts[1]));
          const places = new Float32Array(parts[2]);
          const map = prepareMap({ nodeCount: nodes['id'].length, nodes, edges }, parts[3].description);
          draw(canvas, map.nodes, places, map.radius, (v) => map.colours[map.colour[v]], theme.ground);
        });
      onCleanup(() => drawing.unsubscribe());
    });
  }
}

function draw(
  canvas: HTMLCanvasElement,
  nodes: Uint32Array,
  places: Float32Array,
  radius: Float32Array,
  colour: (v: number) => string,
  ground: string,
): void {
  const pen = canvas.getContext('2d')!;
  pen.setTransform(2, 0, 0, 2, 0, 0);
  pen.fillStyle = ground;
  pen.fillRect(0, 0, WIDTH, HEIGHT);
  let left = Infinity,
    right = -Infinity,
    top = Infinity,
    bottom = -Infinity;
  for (const v of nodes) {
    left = Math.min(left, places[2 * v]);
    right = Math.max(right, places[2 * v]);
    top = Math.min(top, places[2 * v + 1]);
    bottom = Math.max(bottom, places[2 * v + 1]);
  }
  const scale = Math.min((WIDTH - 16) / (right - left || 1), (HEIGHT - 16) / (bottom - top || 1));
  for (const v of nodes) {
    pen.fillStyle = colour(v);
    pen.beginPath();
    pen.arc(
      WIDTH / 2 + (places[2 * v] - (left + right) / 2) * scale,
      HEIGHT / 2 + (places[2 * v + 1] - (top + bottom) / 2) * scale,
      Math.max(0.8, radius[v] * scale * 1.4),
      0,
      7,
    );
    pen.fill();
  }
}
