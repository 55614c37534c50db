import { numbersOf } from '../network/tables';
import type { ScreenNodes, SceneInput } from './buildScene';
import type { CurveBatch, TriangleBatch } from './scene';

/** Widths of ties at scale 1 by weight: 1, 2 to 3, 4 to 9, 10 and more. */
const WIDTHS = [0.65, 1.0, 1.6, 2.5];
const BEND = 0.11;
const FADED = 0.22;
/** Ties drawn in one stroke; where strokes lie over each other the picture gets darker. */
const BATCH = 1000;
/** Arrowheads are drawn while at most this many ties are in view, and for picked ties always. */
const MOST_ARROWS = 500;
const SHORTEST_WITH_ARROW = 26;

/** Curves and arrowheads of all ties that can be seen, pale first, picked ones last. */
export function buildTies(
  input: SceneInput,
  nodes: ScreenNodes,
): { curves: CurveBatch[]; triangles: TriangleBatch[] } {
  const { map, theme, focus, view } = input;
  const source = numbersOf(map.network.edges, 'source');
  const target = numbersOf(map.network.edges, 'target');
  const weight = numbersOf(map.network.edges, 'weight');
  const neutral = map.description.ties.colour === 'neutral' || map.colourRange !== null;
  const strokes = neutral ? [theme.tie] : map.colours;
  const groups = strokes.length * WIDTHS.length;
  const pale = new PenSet(groups);
  const strong = new PenSet(WIDTHS.length);
  let inView = 0;
  for (const e of map.edges) {
    if (!touchesView(source[e], target[e], nodes, input)) continue;
    inView++;
    const width = widthClass(weight[e]);
    if (focus?.edges.has(e)) strong.add(width, e);
    else pale.add((neutral ? 0 : map.colour[source[e]]) * WIDTHS.length + width, e);
  }
  const base = Math.min(0.5, Math.max(0.07, 9 / Math.sqrt(Math.max(inView, 1))));
  const alpha = focus ? base * FADED : base;
  const grown = Math.max(0.7, Math.min(1.6, Math.sqrt(view.scale)));
  const curves: CurveBatch[] = [];
  const triangles: TriangleBatch[] = [];
  const draw = (
    edges: readonly number[],
    stroke: string,
    width: number,
    opacity: number,
    arrows: boolean,
  ): void => {
    for (let from = 0; from < edges.length; from += BATCH) {
      const part = edges.slice(from, from + BATCH);
      const points = curvePoints(part, source, target, nodes, arrows, width);
      curves.push({ stroke, alpha: opacity, width, points: points.curves });
      if (points.heads.length > 0)
        triangles.push({ fill: stroke, alpha: Math.min(1, opacity * 1.6), points: points.heads });
    }
  };
  const wantsArrows = map.description.ties.arrows;
  for (let g = 0; g < groups; g++) {
    const width = WIDTHS[g % WIDTHS.length] * grown;
    draw(
      pale.of(g),
      strokes[Math.floor(g / WIDTHS.length)],
      width,
      alpha,
      wantsArrows && !focus && inView <= MOST_ARROWS,
    );
  }
  for (let g = 0; g < WIDTHS.length; g++)
    draw(strong.of(g), theme.mark, WIDTHS[g] * grown * 1.25, 0.85, wantsArrows);
  return { curves, triangles };
}

/** Edges sorted by the pen that draws them. */
class PenSet {
  private readonly lists: number[][];

  constructor(pens: number) {
    this.lists = Array.from({ length: pens }, () => []);
  }

  add(pen: number, edge: number): void {
    this.lists[pen].push(edge);
  }

  of(pen: number): readonly number[] {
    return this.lists[pen];
  }
}

function widthClass(weight: number): number {
  if (weight < 2) return 0;
  if (weight < 4) return 1;
  return weight < 10 ? 2 : 3;
}

function touchesView(a: number, b: number, { x, y }: ScreenNodes, { size }: SceneInput): boolean {
  return !(
    (x[a] < 0 && x[b] < 0) ||
    (x[a] > size.width && x[b] > size.width) ||
    (y[a] < 0 && y[b] < 0) ||
    (y[a] > size.height && y[b] > size.height)
  );
}

/** Curve control point of a tie: to the left of its way, so that the two directions between a pair lie apart. */
export function controlPoint(ax: number, ay: number, bx: number, by: number): { x: number; y: number } {
  return { x: (ax + bx) / 2 + (by - ay) * BEND, y: (ay + by) / 2 - (bx - ax) * BEND };
}

function curvePoints(
  edges: readonly number[],
  source: ArrayLike<number>,
  target: ArrayLike<number>,
  nodes: ScreenNodes,
  arrows: boolean,
  width: number,
): { curves: Float32Array; heads: Float32Array } {
  const loops = edges.reduce((sum, e) => sum + (source[e] === target[e] ? 1 : 0), 0);
  const curves = new Float32Array(6 * (edges.length + loops));
  const heads: number[] = [];
  let at = 0;
  for (const e of edges) {
    const a = source[e];
    const b = target[e];
    if (a === b) {
      at = writeLoop(curves, at, nodes.x[a], nodes.y[a], nodes.radius[a]);
      continue;
    }
    const control = controlPoint(nodes.x[a], nodes.y[a], nodes.x[b], nodes.y[b]);
    curves[at++] = nodes.x[a];
    curves[at++] = nodes.y[a];
    curves[at++] = control.x;
    curves[at++] = control.y;
    const end = arrows
      ? arrowEnd(control, nodes, b, width, Math.hypot(nodes.x[b] - nodes.x[a], nodes.y[b] - nodes.y[a]))
      : null;
    if (end) heads.push(...end.head);
    curves[at++] = end ? end.x : nodes.x[b];
    curves[at++] = end ? end.y : nodes.y[b];
  }
  return { curves, heads: Float32Array.from(heads) };
}

/** An arrowhead that touches the rim of the target, and where the curve ends to meet it; null on a tie too short to show one. */
function arrowEnd(
  control: { x: number; y: number },
  nodes: ScreenNodes,
  b: number,
  width: number,
  length: number,
): { x: number; y: number; head: number[] } | null {
  if (length - nodes.radius[b] < SHORTEST_WITH_ARROW) return null;
  const dx = nodes.x[b] - control.x;
  const dy = nodes.y[b] - control.y;
  const d = Math.hypot(dx, dy) || 1;
  const ux = dx / d;
  const uy = dy / d;
  const long = 4.5 + 1.6 * width;
  const half = long * 0.42;
  const tipX = nodes.x[b] - ux * (nodes.radius[b] + 1);
  const tipY = nodes.y[b] - uy * (nodes.radius[b] + 1);
  const backX = tipX - ux * long;
  const backY = tipY - uy * long;
  return {
    x: backX,
    y: backY,
    head: [tipX, tipY, backX - uy * half, backY + ux * half, backX + uy * half, backY - ux * half],
  };
}

/** A self-tie: a small loop over the node, made of two curves. */
function writeLoop(curves: Float32Array, at: number, x: number, y: number, r: number): number {
  const high = y - r * 1.6 - 7;
  const wide = r * 0.8 + 6;
  curves.set([x, y - r * 0.8, x - wide, high, x, high, x, high, x + wide, high, x, y - r * 0.8], at);
  return at + 12;
}
