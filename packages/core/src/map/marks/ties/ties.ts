import { numbersOf } from '../../../network/tables';
import type { SceneInput } from '../../scene/sceneInput';
import type { ScreenNodes } from '../../scene/screenNodes';
import { FURTHER_COLOURS, mixed, OTHER_COLOUR } from '../../style/palette';
import type { CurveBatch, LineBatch, TriangleBatch } from '../../scene/scene';
import { mostCurves, routesOf, wayOfTie, type Route } from './tieRoutes';
import { OPACITIES, widthClass, WIDTHS } from './tieWidths';

/** Room between the two directions of a pair, in pixels, beside their width. */
const APART = 1.4;
/** A tie that is shorter on the screen, in pixels, is drawn straight: its bend would be less than a pixel. */
const LONGEST_STRAIGHT = 16;
const FADED = 0.22;
/** Ties drawn in one stroke; where strokes lie over each other the picture gets darker. */
const BATCH = 1000;
/** Arrowheads are drawn while at most this many ties are in view, and for picked ties always. */
const MOST_ARROWS = 500;
const SHORTEST_WITH_ARROW = 26;

/** The marks that ties are made of. */
interface TieMarks {
  readonly lines: LineBatch[];
  readonly curves: CurveBatch[];
  readonly triangles: TriangleBatch[];
}

/** Lines, curves and arrowheads of all ties that can be seen: pale ones first, picked ones last. */
export function buildTies(input: SceneInput, nodes: ScreenNodes): TieMarks {
  const { map, theme, focus, view } = input;
  const { ties } = map.description;
  const ends: Ends = {
    source: numbersOf(map.network.edges, 'source'),
    target: numbersOf(map.network.edges, 'target'),
    nodes,
    route: routesOf(map, nodes),
    mostCurves: mostCurves(map),
    twoWay: map.twoWay,
  };
  const weight = numbersOf(map.network.edges, 'weight');
  const { strokes, strokeOf, standsOut } = strokesOf(input, ends);
  const byWeight = ties.width === 'by weight' || ties.opacity === 'by weight';
  const isPale = (e: number): boolean =>
    map.pale !== null && (map.pale[ends.source[e]] === 1 || map.pale[ends.target[e]] === 1);
  // Pens by width and colour, so that the strongest ties lie on top (or those of which a number says most): of pale ties, of the others,
  // and by width alone of picked ones.
  const own = strokes.length * WIDTHS.length;
  const penOf = (width: number, stroke: number): number =>
    standsOut ? stroke * WIDTHS.length + width : width * strokes.length + stroke;
  const sorted = sortByPen(map.drawn, 2 * own + WIDTHS.length, (e) => {
    if (!touchesView(e, ends, input)) return -1;
    const width = byWeight ? widthClass(weight[e], map.widthBounds) : 0;
    if (focus?.edges.has(e)) return 2 * own + width;
    if (ties.shown === 'of selection') return -1;
    return (isPale(e) ? 0 : own) + penOf(width, strokeOf(e));
  });
  const inView = sorted.edges.length;
  const usual = Math.min(0.5, Math.max(0.02, 9 / Math.sqrt(Math.max(inView, 1))));
  const base = Math.min(1, usual * ties.strength);
  const grown = grownWidth(view.scale);
  const wantsArrows = ties.arrows && map.directed;
  const marks: TieMarks = { lines: [], curves: [], triangles: [] };
  for (let pen = 0; pen < 2 * own + WIDTHS.length; pen++) {
    const edges = sorted.edges.subarray(sorted.start[pen], sorted.start[pen + 1]);
    if (edges.length === 0) continue;
    const isPicked = pen >= 2 * own;
    const [first, second] = standsOut ? [WIDTHS.length, strokes.length] : [strokes.length, WIDTHS.length];
    const [slow, fast] = [Math.floor((pen % own) / first) % second, (pen % own) % first];
    const [kind, stroke] = isPicked ? [pen - 2 * own, 0] : standsOut ? [fast, slow] : [slow, fast];
    const width = WIDTHS[ties.width === 'even' ? 0 : kind] * grown;
    const weighed = ties.opacity === 'by weight' ? base * OPACITIES[kind] : base;
    const usualAlpha = Math.min(1, weighed * (standsOut?.[stroke] ?? 1));
    draw(marks, edges, ends, {
      stroke: isPicked ? theme.mark : strokes[stroke],
      width: isPicked ? width * 1.25 : width,
      alpha: isPicked
        ? pickedAlpha(focus?.edges.size ?? 0)
        : focus || pen < own
          ? usualAlpha * FADED
          : usualAlpha,
      arrows: wantsArrows && (isPicked || (!focus && inView <= MOST_ARROWS)),
    });
  }
  return marks;
}

/** A few picked ties stand out strongly; many together would be a blot. */
function pickedAlpha(picked: number): number {
  return Math.max(0.25, Math.min(0.85, 0.85 * Math.sqrt(60 / Math.max(picked, 1))));
}

interface TieStrokes {
  /** From what lies at the bottom to what lies on top. */
  readonly strokes: readonly string[];
  readonly strokeOf: (edge: number) => number;
  /** How much stronger than usual ties of each colour are drawn; where it is there, colours go before widths in what lies on top. */
  readonly standsOut?: readonly number[];
}

/** The colours of ties, and which of them each has: of its kind, by its number, of its source, of its target, of both mixed, or none. */
function strokesOf({ map, theme }: SceneInput, { source, target }: Ends): TieStrokes {
  const { colour } = map.description.ties;
  const kinds = map.tieKinds;
  if (colour === 'by kind' && kinds)
    return { strokes: kindColours(kinds.names.length), strokeOf: (e) => kinds.of[e] };
  const numbers = map.tieNumbers;
  if (numbers)
    return { strokes: numbers.colours, strokeOf: (e) => numbers.of[e], standsOut: numbers.standsOut };
  if (colour === 'neutral' || colour === 'by kind' || colour === 'by number' || map.colourRange !== null)
    return { strokes: [theme.tie], strokeOf: () => 0 };
  const count = map.colours.length;
  switch (colour) {
    case 'by community':
      return { strokes: map.colours, strokeOf: (e) => map.colour[source[e]] };
    case 'by target':
      return { strokes: map.colours, strokeOf: (e) => map.colour[target[e]] };
    case 'mixed': {
      const strokes = map.colours.flatMap((a) => map.colours.map((b) => mixed(a, b)));
      return { strokes, strokeOf: (e) => map.colour[source[e]] * count + map.colour[target[e]] };
    }
  }
}

/** The colours of kinds of ties, which are none of those that nodes have at first; the last is that of no kind. */
export function kindColours(kinds: number): string[] {
  return [...FURTHER_COLOURS.slice(0, kinds), OTHER_COLOUR];
}

interface Ends {
  readonly source: ArrayLike<number>;
  readonly target: ArrayLike<number>;
  readonly nodes: ScreenNodes;
  readonly route: Route;
  readonly mostCurves: number;
  readonly twoWay: Uint8Array | null;
}

interface PenStyle {
  readonly stroke: string;
  readonly width: number;
  readonly alpha: number;
  readonly arrows: boolean;
}

/** Edges by the pen that draws them, in their order: those of pen p stand from `start[p]` to `start[p + 1]`. Pen -1 leaves out. */
function sortByPen(
  edges: Uint32Array,
  pens: number,
  penOf: (edge: number) => number,
): { edges: Uint32Array; start: Uint32Array } {
  const pen = new Int32Array(edges.length);
  for (let i = 0; i < pen.length; i++) pen[i] = penOf(edges[i]);
  const start = new Uint32Array(pens + 1);
  for (const p of pen) if (p >= 0) start[p + 1]++;
  for (let p = 0; p < pens; p++) start[p + 1] += start[p];
  const sorted = new Uint32Array(start[pens]);
  const next = start.slice();
  for (let i = 0; i < edges.length; i++) if (pen[i] >= 0) sorted[next[pen[i]]++] = edges[i];
  return { edges: sorted, start };
}

function draw(
  marks: TieMarks,
  edges: Uint32Array,
  ends: Ends,
  { stroke, width, alpha, arrows }: PenStyle,
): void {
  for (let from = 0; from < edges.length; from += BATCH) {
    const { lines, curves, heads } = tracePart(edges.subarray(from, from + BATCH), ends, width, arrows);
    if (lines.length > 0) marks.lines.push({ stroke, alpha, width, points: lines });
    if (curves.length > 0) marks.curves.push({ stroke, alpha, width, points: curves });
    if (heads.length > 0)
      marks.triangles.push({
        fill: stroke,
        alpha: Math.min(1, alpha * 1.6),
        points: Float32Array.from(heads),
      });
  }
}

/** Ties grow a little with the map. */
export function grownWidth(scale: number): number {
  return Math.max(0.7, Math.min(1.6, Math.sqrt(scale)));
}

function touchesView(e: number, { source, target, nodes: { x, y } }: Ends, { size }: SceneInput): boolean {
  const a = source[e];
  const b = target[e];
  return !(
    (x[a] < 0 && x[b] < 0) ||
    (x[a] > size.width && x[b] > size.width) ||
    (y[a] < 0 && y[b] < 0) ||
    (y[a] > size.height && y[b] > size.height)
  );
}

/** The points of some ties: short ones as lines, the others as curves, with arrowheads where they are wanted and have room. */
function tracePart(
  edges: Uint32Array,
  { source, target, nodes, route, twoWay, mostCurves: most }: Ends,
  width: number,
  arrows: boolean,
): { lines: Float32Array; curves: Float32Array; heads: readonly number[] } {
  const { x, y } = nodes;
  const lines = new Float32Array(4 * edges.length);
  const curves = new Float32Array(6 * most * edges.length);
  const heads: number[] = [];
  const way = wayOfTie();
  let line = 0;
  let curve = 0;
  for (const e of edges) {
    const a = source[e];
    const b = target[e];
    if (a === b) {
      curve = writeLoop(curves, curve, x[a], y[a], nodes.radius[a]);
      continue;
    }
    const dx = x[b] - x[a];
    const dy = y[b] - y[a];
    const length = Math.sqrt(dx * dx + dy * dy);
    const parts = length < LONGEST_STRAIGHT ? 0 : route(e, a, b, way);
    const last = 4 * (parts - 1);
    // An arrow comes from the last control point; on a straight tie from its source.
    const [fromX, fromY] = parts === 0 ? [x[a], y[a]] : [way[last], way[last + 1]];
    const end = arrows ? arrowEnd(fromX, fromY, nodes, b, width, length) : null;
    if (parts === 0) {
      // To the left of its way.
      const aside = twoWay?.[e] === 1 && length >= LONGEST_STRAIGHT ? (APART + width / 2) / length : 0;
      const [ox, oy] = [dy * aside, -dx * aside];
      if (end) heads.push(...end.head.map((at, i) => at + (i % 2 === 0 ? ox : oy)));
      lines[line++] = x[a] + ox;
      lines[line++] = y[a] + oy;
      lines[line++] = (end ? end.x : x[b]) + ox;
      lines[line++] = (end ? end.y : y[b]) + oy;
      continue;
    }
    if (end) heads.push(...end.head);
    if (end) {
      way[last + 2] = end.x;
      way[last + 3] = end.y;
    }
    let startX = x[a];
    let startY = y[a];
    for (let p = 0; p < parts; p++) {
      curves[curve++] = startX;
      curves[curve++] = startY;
      curves[curve++] = way[4 * p];
      curves[curve++] = way[4 * p + 1];
      curves[curve++] = startX = way[4 * p + 2];
      curves[curve++] = startY = way[4 * p + 3];
    }
  }
  return { lines: lines.slice(0, line), curves: curves.slice(0, curve), heads };
}

/** An arrowhead that touches the rim of the target, and where the curve ends to meet it; null on a tie too short to show one. */
function arrowEnd(
  controlX: number,
  controlY: number,
  nodes: ScreenNodes,
  b: number,
  width: number,
  length: number,
): { x: number; y: number; head: number[] } | null {
  if (length - nodes.radius[b] < SHORTEST_WITH_ARROW) return null;
  const dx = nodes.x[b] - controlX;
  const dy = nodes.y[b] - controlY;
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
  const high = loopTop(y, r);
  const wide = r * 0.8 + 6;
  curves.set([x, y - r * 0.8, x - wide, high, x, high, x, high, x + wide, high, x, y - r * 0.8], at);
  return at + 12;
}

/** How high the loop of a self-tie reaches. */
export function loopTop(y: number, r: number): number {
  return y - r * 1.6 - 7;
}
