import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  type OnDestroy,
  signal,
  viewChild,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import {
  clipText,
  formatCount,
  formatValue,
  matrixOf,
  type MatrixCell,
  type MatrixOrder,
} from '@pebble/core';
import { ThemeChoice } from '../../shared/theme';
import { MapSession } from '../session/map-session';

const MOST = [40, 80, 150, 300];
/** Room for the names of rows; from this height of a row on they are written. */
const NAMES = 150;
const READABLE = 10;

/** The same network as a matrix: who is tied to whom, by row and column. */
@Component({
  selector: 'pt-matrix-panel',
  imports: [MatInput, MatFormField, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="choice">
      ordered by
      <mat-form-field><select matNativeControl aria-label="Order" [ngModel]="order()" (ngModelChange)="order.set($event)">
        @for (one of orders; track one[0]) {
          <option [value]="one[0]">{{ one[1] }}</option>
        }
      </select></mat-form-field>
      the
      <mat-form-field><select matNativeControl aria-label="Rows" [ngModel]="most()" (ngModelChange)="most.set(+$event)">
        @for (one of sizes; track one) {
          <option [ngValue]="one">{{ one }}</option>
        }
      </select></mat-form-field>
      with most ties
      <span class="soft" role="status">{{ told() }}</span>
    </div>
    <div class="ground" #ground>
      <canvas
        #canvas
        tabindex="0"
        role="img"
        [attr.aria-label]="'Matrix of ' + matrix().nodes.length + ' nodes'"
        (pointermove)="look($event)"
        (pointerleave)="at.set(null)"
        (click)="pick($event)"
      ></canvas>
    </div>
  `,
  styleUrl: '../panels/panel-below.scss',
  styles: `
    .ground {
      flex: 1;
      min-height: 0;
      overflow: auto;
      padding: 0 18px 12px;
    }
    canvas {
      display: block;
      cursor: crosshair;
    }
  `,
})
export class MatrixPanel implements OnDestroy {
  private readonly session = inject(MapSession);
  private readonly theme = inject(ThemeChoice);
  protected readonly sizes = MOST;
  protected readonly orders: readonly (readonly [MatrixOrder, string])[] = [
    ['community', 'community'],
    ['degree', 'ties'],
    ['blocks', 'clear blocks'],
    ['name', 'name'],
  ];
  protected readonly order = signal<MatrixOrder>('community');
  protected readonly most = signal(80);
  protected readonly at = signal<{ row: number; column: number } | null>(null);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly ground = viewChild.required<ElementRef<HTMLElement>>('ground');
  private readonly width = signal(800);
  private readonly watcher =
    typeof ResizeObserver === 'undefined'
      ? null
      : new ResizeObserver(() => this.width.set(this.ground().nativeElement.clientWidth));

  protected readonly matrix = computed(() => {
    const map = this.session.prepared();
    return map ? matrixOf(map, this.order(), this.most()) : { nodes: [], cells: [], left: 0, heaviest: 0 };
  });
  private readonly byPlace = computed(
    () =>
      new Map(this.matrix().cells.map((cell) => [cell.row * this.matrix().nodes.length + cell.column, cell])),
  );
  /** Side of a cell in pixels. */
  private readonly side = computed(() => {
    const rows = Math.max(1, this.matrix().nodes.length);
    return Math.max(3, Math.min(16, Math.floor((this.width() - NAMES - 60) / rows)));
  });
  protected readonly told = computed(() => {
    const { nodes, cells, left } = this.matrix();
    const place = this.at();
    const labels = this.session.prepared()?.labels ?? [];
    if (place) {
      const cell = this.cellAt(place.row, place.column);
      const names = `${labels[nodes[place.row]]} → ${labels[nodes[place.column]]}`;
      return `${names}: ${cell ? `weight ${formatValue(cell.weight)}` : 'no tie'}`;
    }
    const rest = left > 0 ? `, ${formatCount(left)} nodes not in it` : '';
    return `${formatCount(cells.length)} cells${rest}. A row is where a tie comes from; the diagonal holds self-ties. Click a cell to read its messages.`;
  });

  constructor() {
    effect(() => {
      this.watcher?.observe(this.ground().nativeElement);
    });
    effect(() => this.paint());
  }

  ngOnDestroy(): void {
    this.watcher?.disconnect();
  }

  protected look(event: PointerEvent): void {
    this.at.set(this.placeOf(event));
  }

  protected pick(event: MouseEvent): void {
    const place = this.placeOf(event);
    if (!place) return;
    const { nodes } = this.matrix();
    const cell = this.cellAt(place.row, place.column);
    if (!cell) this.session.selectNode(nodes[place.row]);
    else this.session.selectTie(this.endsOf(cell));
  }

  /** The ends of the tie as it stands in the network, whichever half of the matrix was clicked. */
  private endsOf({ edge }: MatrixCell): { source: number; target: number } {
    const { edges } = this.session.data()!;
    return { source: Number(edges['source'][edge]), target: Number(edges['target'][edge]) };
  }

  private cellAt(row: number, column: number): MatrixCell | undefined {
    return this.byPlace().get(row * this.matrix().nodes.length + column);
  }

  private placeOf(event: MouseEvent): { row: number; column: number } | null {
    const column = Math.floor((event.offsetX - NAMES) / this.side());
    const row = Math.floor(event.offsetY / this.side());
    const rows = this.matrix().nodes.length;
    return row >= 0 && column >= 0 && row < rows && column < rows ? { row, column } : null;
  }

  private paint(): void {
    const { nodes, cells, heaviest } = this.matrix();
    const map = this.session.prepared();
    const side = this.side();
    const { ink, soft, tie, mark } = this.theme.map();
    const selection = this.session.selection();
    const canvas = this.canvas().nativeElement;
    const finer = window.devicePixelRatio || 1;
    const [width, height] = [NAMES + nodes.length * side + 2, nodes.length * side + 2];
    canvas.width = width * finer;
    canvas.height = height * finer;
    canvas.style.width = `${width}px`;
    canvas.style.height = `${height}px`;
    const pen = canvas.getContext('2d');
    if (!pen || !map) return;
    pen.scale(finer, finer);
    pen.globalAlpha = 0.12;
    pen.fillStyle = tie;
    pen.fillRect(NAMES, 0, nodes.length * side, nodes.length * side);
    for (const { row, column, weight } of cells) {
      pen.globalAlpha = 0.3 + 0.7 * Math.sqrt(weight / Math.max(heaviest, 1));
      const same = map.colour[nodes[row]] === map.colour[nodes[column]];
      pen.fillStyle = same ? map.colours[map.colour[nodes[row]]] : ink;
      pen.fillRect(NAMES + column * side + 0.5, row * side + 0.5, side - 1, side - 1);
    }
    pen.globalAlpha = 1;
    if (side >= READABLE) {
      pen.font = `${Math.min(12, side - 1)}px "Atkinson Hyperlegible Next Variable", sans-serif`;
      pen.textAlign = 'right';
      pen.textBaseline = 'middle';
      nodes.forEach((v, i) => {
        pen.fillStyle = selection?.what === 'node' && selection.node === v ? mark : soft;
        pen.fillText(clipText(map.labels[v], 12, 'plain', NAMES - 14), NAMES - 8, (i + 0.5) * side);
      });
    }
    if (selection?.what === 'node') {
      const at = nodes.indexOf(selection.node);
      if (at < 0) return;
      pen.strokeStyle = mark;
      pen.lineWidth = 1.5;
      pen.strokeRect(NAMES, at * side, nodes.length * side, side);
      pen.strokeRect(NAMES + at * side, 0, side, nodes.length * side);
    }
  }
}
