import { COURSE_ROOM, writeCourse } from './bundling/bundledPaths';
import { INNER } from './bundling/forces';
import type { ScreenNodes } from '../../scene/screenNodes';
import type { PreparedMap } from '../../scene/prepare';

/** Bend of a tie, as a share of its length. */
const BEND = 0.11;

/** How a tie runs between its nodes a and b: some quadratic curves, each by its control point and its end. */
export type Route = (edge: number, a: number, b: number, out: Float64Array) => number;

/** Of how many curves a tie is made at most. */
export function mostCurves({ courses }: PreparedMap): number {
  return courses ? INNER : 2;
}

/** Room for the curves of any tie. */
export function wayOfTie(): Float64Array {
  return new Float64Array(COURSE_ROOM);
}

/**
 * The routes of ties by the form that a map asks for. A route writes control x, control y, end x, end y for each of its curves into `out`,
 * and gives their number; 0 for a straight line.
 */
export function routesOf(map: PreparedMap, nodes: ScreenNodes): Route {
  switch (map.description.ties.form) {
    case 'straight':
      return () => 0;
    case 'bent':
      return (_, a, b, out) => bent(nodes, a, b, out);
    case 'bundled':
      return bundled(map, nodes);
    case 'bundled freely':
      return alongCourses(map, nodes);
  }
}

/** To the left of its way, so that the two directions between a pair lie apart. */
function bent({ x, y }: ScreenNodes, a: number, b: number, out: Float64Array): number {
  out[0] = (x[a] + x[b]) / 2 + (y[b] - y[a]) * BEND;
  out[1] = (y[a] + y[b]) / 2 - (x[b] - x[a]) * BEND;
  out[2] = x[b];
  out[3] = y[b];
  return 1;
}

/**
 * Ties between two groups are drawn together along the line between the middles of these: two curves that meet half way, smoothly, since
 * both control points and the meeting lie on one line. Ties within a group bend towards its middle.
 */
function bundled(map: PreparedMap, nodes: ScreenNodes): Route {
  const { x, y } = nodes;
  const groups = map.bundles;
  if (!groups) return (_, a, b, out) => bent(nodes, a, b, out);
  const { middleX, middleY, alone } = middles(map, nodes, groups);
  const t = map.description.ties.tightness;
  return (_, a, b, out) => {
    const [g, h] = [groups[a], groups[b]];
    if (alone[g] === 1 || alone[h] === 1) return bent(nodes, a, b, out);
    if (g === h) {
      const pull = 0.35 * t;
      out[0] = ((x[a] + x[b]) / 2) * (1 - pull) + middleX[g] * pull;
      out[1] = ((y[a] + y[b]) / 2) * (1 - pull) + middleY[g] * pull;
      out[2] = x[b];
      out[3] = y[b];
      return 1;
    }
    const cx1 = (x[a] + (x[b] - x[a]) / 4) * (1 - t) + middleX[g] * t;
    const cy1 = (y[a] + (y[b] - y[a]) / 4) * (1 - t) + middleY[g] * t;
    const cx2 = (x[b] + (x[a] - x[b]) / 4) * (1 - t) + middleX[h] * t;
    const cy2 = (y[b] + (y[a] - y[b]) / 4) * (1 - t) + middleY[h] * t;
    out[0] = cx1;
    out[1] = cy1;
    out[2] = (cx1 + cx2) / 2;
    out[3] = (cy1 + cy2) / 2;
    out[4] = cx2;
    out[5] = cy2;
    out[6] = x[b];
    out[7] = y[b];
    return 2;
  };
}

/** As the forces drew them; a tie that nothing runs along keeps its bend. */
function alongCourses({ courses, description: { ties } }: PreparedMap, nodes: ScreenNodes): Route {
  if (!courses) return (_, a, b, out) => bent(nodes, a, b, out);
  return (e, a, b, out) =>
    writeCourse(courses, e, a, b, nodes, ties.tightness, out) || bent(nodes, a, b, out);
}

/** Where the middle of a tie is, by its route. */
export function middleOfTie(
  route: Route,
  { x, y }: ScreenNodes,
  edge: number,
  a: number,
  b: number,
  way: Float64Array,
): readonly [number, number] {
  const curves = route(edge, a, b, way);
  if (curves === 0) return [(x[a] + x[b]) / 2, (y[a] + y[b]) / 2];
  const half = 4 * Math.floor(curves / 2);
  if (curves % 2 === 0) return [way[half - 2], way[half - 1]];
  const [fromX, fromY] = curves === 1 ? [x[a], y[a]] : [way[half - 2], way[half - 1]];
  return [(fromX + 2 * way[half] + way[half + 2]) / 4, (fromY + 2 * way[half + 1] + way[half + 3]) / 4];
}

function middles(map: PreparedMap, { x, y }: ScreenNodes, groups: Uint32Array) {
  let count = 0;
  for (const v of map.nodes) count = Math.max(count, groups[v] + 1);
  const middleX = new Float64Array(count);
  const middleY = new Float64Array(count);
  const size = new Uint32Array(count);
  for (const v of map.nodes) {
    middleX[groups[v]] += x[v];
    middleY[groups[v]] += y[v];
    size[groups[v]]++;
  }
  for (let g = 0; g < count; g++) {
    middleX[g] /= size[g];
    middleY[g] /= size[g];
  }
  return { middleX, middleY, alone: Uint8Array.from(size, (nodes) => (nodes < 3 ? 1 : 0)) };
}
