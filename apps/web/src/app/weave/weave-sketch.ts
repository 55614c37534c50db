import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { LayoutSettings, type Sketch } from '@pebble/contract';
import { arrange } from '@pebble/core';

const [WIDTH, HEIGHT, EDGE] = [300, 170, 12];
/** So many nodes are named at most, those with most ties; a letter is some five pixels wide. */
const NAMED = 5;
const LETTERS = 22;
const LETTER = 5.4;
const LINE = 13;

interface Dot {
  readonly x: number;
  readonly y: number;
  readonly r: number;
  readonly label: string;
}

interface Name {
  readonly x: number;
  readonly y: number;
  /** Half its width. */
  readonly half: number;
  readonly text: string;
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
        @for (name of d.names; track $index) {
          <text [attr.x]="name.x" [attr.y]="name.y">{{ name.text }}</text>
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
}

function draw({ labels, ties }: Sketch) {
  const nodes = labels.length;
  const degree = new Array<number>(nodes).fill(0);
  for (const { source, target } of ties) {
    degree[source]++;
    degree[target]++;
  }
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
  }));
  const strongest = Math.max(...ties.map(({ weight }) => weight));
  const lines = ties.map(({ source, target, weight }) => ({
    a: dots[source],
    b: dots[target],
    width: 0.6 + 2 * Math.sqrt(weight / strongest),
  }));
  const byDegree = [...degree.keys()].sort((a, b) => degree[b] - degree[a] || a - b);
  return { dots, lines, names: namesOf(byDegree.map((v) => dots[v])) };
}

/** Names of the first nodes, inside the picture; one that would cover another is left out. */
function namesOf(dots: readonly Dot[]): Name[] {
  const names: Name[] = [];
  for (const { x, y, r, label } of dots.slice(0, 3 * NAMED)) {
    const letters = [...label];
    const text = letters.length > LETTERS ? `${letters.slice(0, LETTERS - 1).join('')}…` : label;
    const half = (LETTER / 2) * [...text].length;
    const name = {
      x: Math.min(WIDTH - half - 4, Math.max(half + 4, x)),
      y: Math.max(LINE, y - r - 3),
      half,
      text,
    };
    const isFree = names.every(
      (other) => Math.abs(other.y - name.y) > LINE || Math.abs(other.x - name.x) > other.half + half + 4,
    );
    if (isFree) names.push(name);
    if (names.length === NAMED) break;
  }
  return names;
}
