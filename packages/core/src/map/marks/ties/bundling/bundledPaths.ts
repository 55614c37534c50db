import type { ScreenNodes } from '../../../scene/screenNodes';
import { bundledLines, INNER } from './forces';

/** So many ties at most are drawn together by forces, the strongest; the others keep their bend. */
export const MOST_BUNDLED = 10_000;

/**
 * How ties run that were drawn together. The points of a tie are told from the straight line between its ends: how far along it and to
 * the right of it, in lengths of this line. So they go along when the nodes move, and when the map is turned or grows.
 */
export interface BundledPaths {
  /** By edge of the network its place among the courses; -1 for one that has none. */
  readonly of: Int32Array;
  /** `INNER` for each course. */
  readonly along: Float32Array;
  readonly aside: Float32Array;
  /** Ties that have a course. */
  readonly ties: number;
  /** Drawn ties beyond `MOST_BUNDLED`, which have none. */
  readonly left: number;
}

export interface CourseInput {
  /** Drawn ties, ascending. */
  readonly edges: Uint32Array;
  /** Of all edges of the network. */
  readonly source: ArrayLike<number>;
  readonly target: ArrayLike<number>;
  readonly weight: ArrayLike<number>;
  /** Places of the nodes, in any unit. */
  readonly x: ArrayLike<number>;
  readonly y: ArrayLike<number>;
}

/** Draws ties together; tells in between how far it is, 0 to 1. The same input gives the same bits everywhere. */
export function* bundling(input: CourseInput, most = MOST_BUNDLED): Generator<number, BundledPaths> {
  const { edges, source, target, x, y } = input;
  const able = edges.filter((e) => x[source[e]] !== x[target[e]] || y[source[e]] !== y[target[e]]);
  const taken = strongest(able, input.weight, most);
  const end = (of: ArrayLike<number>, place: ArrayLike<number>): Float64Array =>
    Float64Array.from(taken, (e) => place[of[e]]);
  const chords = { ax: end(source, x), ay: end(source, y), bx: end(target, x), by: end(target, y) };
  const lines = yield* bundledLines(chords);
  const of = new Int32Array(source.length).fill(-1);
  const along = new Float32Array(taken.length * INNER);
  const aside = new Float32Array(taken.length * INNER);
  taken.forEach((e, i) => {
    if (lines.mates.count[i] === 0) return;
    of[e] = i;
    const [ax, ay] = [chords.ax[i], chords.ay[i]];
    const [dx, dy] = [chords.bx[i] - ax, chords.by[i] - ay];
    const square = dx * dx + dy * dy;
    for (let k = i * INNER; k < (i + 1) * INNER; k++) {
      const [px, py] = [lines.x[k] - ax, lines.y[k] - ay];
      along[k] = (px * dx + py * dy) / square;
      aside[k] = (py * dx - px * dy) / square;
    }
  });
  return { of, along, aside, ties: taken.length, left: able.length - taken.length };
}

function strongest(edges: Uint32Array, weight: ArrayLike<number>, most: number): Uint32Array {
  if (edges.length <= most) return edges;
  return Uint32Array.from(edges)
    .sort((a, b) => weight[b] - weight[a] || a - b)
    .subarray(0, most)
    .sort();
}

/**
 * Writes the course of a tie into `out` as curves that bend at its points and meet half way between them: control x, control y, end x,
 * end y of each, and gives their number; 0 for a tie that has no course.
 * @param tightness 0 is straight, 1 is as the forces drew it
 */
export function writeCourse(
  { of, along, aside }: BundledPaths,
  edge: number,
  a: number,
  b: number,
  { x, y }: Pick<ScreenNodes, 'x' | 'y'>,
  tightness: number,
  out: Float64Array,
): number {
  const course = of[edge];
  if (!(course >= 0)) return 0;
  const dx = x[b] - x[a];
  const dy = y[b] - y[a];
  const first = course * INNER;
  for (let k = 0; k < INNER; k++) {
    const straight = (k + 1) / (INNER + 1);
    const s = straight + (along[first + k] - straight) * tightness;
    const t = aside[first + k] * tightness;
    out[4 * k] = x[a] + s * dx - t * dy;
    out[4 * k + 1] = y[a] + s * dy + t * dx;
  }
  for (let k = 0; k < INNER - 1; k++) {
    out[4 * k + 2] = (out[4 * k] + out[4 * k + 4]) / 2;
    out[4 * k + 3] = (out[4 * k + 1] + out[4 * k + 5]) / 2;
  }
  out[4 * INNER - 2] = x[b];
  out[4 * INNER - 1] = y[b];
  return INNER;
}

/** Numbers that a way along a course takes. */
export const COURSE_ROOM = 4 * INNER;
