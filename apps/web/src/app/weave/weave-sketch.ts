import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { LayoutSettings, type Sketch } from '@pebble/contract';
import { arrange } from '@pebble/core';

const [WIDTH, HEIGHT, EDGE] = [300, 170, 12];
/** So many nodes are named, those with most ties. */
const NAMED = 4;

interface Dot {
  readonly x: number;
  readonly y: number;
  readonly r: number;
  readonly label: string;
  readonly isNamed: boolean;
}

/** The strongest ties of what would be woven, drawn small. */
@Component({
  selector: 'pt-weave-sketch',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let d = drawn();
    <figure>
      <svg [attr.viewBox]="box" role="img" [attr.aria-label]="says()">
        @for (line of d.lines; track $index) {
          <line
            [attr.x1]="line.a.x"
            [attr.y1]="line.a.y"
            [attr.x2]="line.b.x"
            [attr.y2]="line.b.y"
            [attr.stroke-width]="line.width"
          />
        }
        @for (dot of d.dots; track $index) {
          <circle [attr.cx]="dot.x" [attr.cy]="dot.y" [attr.r]="dot.r">
            <title>{{ dot.label }}</title>
          </circle>
        }
        @for (dot of d.dots; track $index) {
          @if (dot.isNamed) {
            <text [attr.x]="nameX(dot)" [attr.y]="dot.y - dot.r - 3">{{ shortened(dot.label) }}</text>
          }
        }
      </svg>
      <figcaption>{{ says() }}</figcaption>
    </figure>
  `,
  styles: `
    figure {
      margin: 0;
    }
    svg {
      width: 300px;
      height: 170px;
      background: var(--sheet);
      border: 1px solid var(--line);
      border-radius: 8px;
    }
    line {
      stroke: var(--soft);
      stroke-opacity: 0.45;
    }
    circle {
      fill: var(--thread);
    }
    text {
      font: 10.5px var(--ui);
      fill: var(--ink);
      text-anchor: middle;
      paint-order: stroke;
      stroke: var(--sheet);
      stroke-width: 3px;
    }
    figcaption {
      font-size: 12.5px;
      color: var(--soft);
      margin-top: 2px;
    }
  `,
})
export class WeaveSketch {
  readonly sketch = input.required<Sketch>();
  protected readonly box = `0 0 ${WIDTH} ${HEIGHT}`;
  protected readonly says = computed(() => {
    const ties = this.sketch().ties.length;
    return ties === 1 ? 'Its one tie' : `Its ${ties} strongest ties`;
  });
  protected readonly drawn = computed(() => draw(this.sketch()));

  protected shortened(label: string): string {
    return [...label].length > 22 ? `${[...label].slice(0, 21).join('')}…` : label;
  }

  /** Names stay inside the picture: a letter is some five pixels wide. */
  protected nameX({ x, label }: Dot): number {
    const half = 2.6 * Math.min(22, [...label].length);
    return Math.min(WIDTH - half - 4, Math.max(half + 4, x));
  }
}

function draw({ labels, ties }: Sketch) {
  const nodes = labels.length;
  const degree = new Array<number>(nodes).fill(0);
  for (const { source, target } of ties) {
    degree[source]++;
    degree[target]++;
  }
  const named = new Set([...degree.keys()].sort((a, b) => degree[b] - degree[a] || a - b).slice(0, NAMED));
  const most = Math.max(1, ...degree);
  const radius = degree.map((d) => 2 + 3 * Math.sqrt(d / most));
  const { x, y } = arrange(
    {
      nodeCount: nodes,
      source: Uint32Array.from(ties, (tie) => tie.source),
      target: Uint32Array.from(ties, (tie) => tie.target),
      weight: Float64Array.from(ties, () => 1),
    },
    radius,
    LayoutSettings.parse({}),
  );
  const [left, top] = [Math.min(...x), Math.min(...y)];
  const [across, down] = [Math.max(...x) - left || 1, Math.max(...y) - top || 1];
  const dots = labels.map((label, v): Dot => ({
    x: EDGE + ((x[v] - left) / across) * (WIDTH - 2 * EDGE),
    y: EDGE + 6 + ((y[v] - top) / down) * (HEIGHT - 2 * EDGE - 6),
    r: radius[v],
    label,
    isNamed: named.has(v),
  }));
  const strongest = Math.max(...ties.map(({ weight }) => weight));
  const lines = ties.map(({ source, target, weight }) => ({
    a: dots[source],
    b: dots[target],
    width: 0.6 + 2 * Math.sqrt(weight / strongest),
  }));
  return { dots, lines };
}
