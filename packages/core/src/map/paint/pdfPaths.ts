// The operators of paths in a PDF (ISO 32000-1, 8.5.2), written straight: of many thousand ties the library's own calls take most of the time.
import { CORNERS } from '../marks/nodes/shapes';
import { middleOf, type DiscBatch } from '../scene/scene';

/** A number with at most two decimals. */
function n(value: number): number {
  return Math.round(value * 100) / 100;
}

export function moveTo(x: number, y: number): string {
  return `${n(x)} ${n(y)} m\n`;
}

export function lineTo(x: number, y: number): string {
  return `${n(x)} ${n(y)} l\n`;
}

/** A quadratic curve from a by c to b as the cubic one that is the same; PDF has no other. */
export function bendTo(ax: number, ay: number, cx: number, cy: number, bx: number, by: number): string {
  const [x1, y1] = [ax + (2 / 3) * (cx - ax), ay + (2 / 3) * (cy - ay)];
  const [x2, y2] = [bx + (2 / 3) * (cx - bx), by + (2 / 3) * (cy - by)];
  return `${n(x1)} ${n(y1)} ${n(x2)} ${n(y2)} ${n(bx)} ${n(by)} c\n`;
}

/** How far the control points of a quarter of a circle lie from its ends. */
const QUARTER = (4 / 3) * (Math.SQRT2 - 1);

export function outlineOf(shape: DiscBatch['shape'], x: number, y: number, radius: number): string {
  const corners = CORNERS[shape];
  if (corners)
    return `${corners.map(([cx, cy], i) => (i === 0 ? moveTo : lineTo)(x + cx * radius, y + cy * radius)).join('')}h\n`;
  const k = radius * QUARTER;
  const [left, right, top, low] = [n(x - radius), n(x + radius), n(y - radius), n(y + radius)];
  const [mx, my] = [n(x), n(y)];
  return (
    `${right} ${my} m\n${right} ${n(y + k)} ${n(x + k)} ${low} ${mx} ${low} c\n` +
    `${n(x - k)} ${low} ${left} ${n(y + k)} ${left} ${my} c\n` +
    `${left} ${n(y - k)} ${n(x - k)} ${top} ${mx} ${top} c\n` +
    `${n(x + k)} ${top} ${right} ${n(y - k)} ${right} ${my} c\nh\n`
  );
}

/** A closed line that bends at its points. */
export function closedLine(points: Float32Array): string {
  const count = points.length / 2;
  let from = middleOf(points, count - 1);
  let path = moveTo(...from);
  for (let i = 0; i < count; i++) {
    const to = middleOf(points, i);
    path += bendTo(...from, points[2 * i], points[2 * i + 1], ...to);
    from = to;
  }
  return `${path}h`;
}

/** The outline of letters, from an SVG path of moves, lines and curves to absolute places. */
export function letterPath(d: string): string {
  let at: readonly [number, number] = [0, 0];
  let path = '';
  for (const [, sign, numbers] of d.matchAll(/([MLQCZ])([^MLQCZ]*)/g)) {
    const to = numbers.split(' ').map(Number);
    const end: readonly [number, number] = sign === 'Z' ? at : [to.at(-2)!, to.at(-1)!];
    if (sign === 'M') path += moveTo(...end);
    else if (sign === 'L') path += lineTo(...end);
    else if (sign === 'Q') path += bendTo(...at, to[0], to[1], ...end);
    else if (sign === 'C') path += `${to.map(n).join(' ')} c\n`;
    else path += 'h\n';
    at = end;
  }
  return path;
}
