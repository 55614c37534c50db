import { boundsOf } from '../../scene/bounds';

/** Side of a cell of the grid on which density is counted, in pixels. */
const CELL = 5;
/** Density, beside that of one node on its own at its middle, at which the line runs. */
const LEVEL = 0.35;
const MOST_CELLS = 250_000;

/** Values in the cells of a grid, row by row. */
export interface Field {
  readonly left: number;
  readonly top: number;
  readonly cell: number;
  readonly columns: number;
  readonly rows: number;
  readonly value: Float32Array;
}

/**
 * Closed lines round some places where these lie densely: a sum of Gaussian hills on a grid, cut at a height at which a single place has a
 * small ring of its own (marching squares, Lorensen & Cline 1987, Computer Graphics 21(4), in two dimensions). Places far from the rest thus
 * get a line of their own, and what lies between is left out.
 * @param reach standard deviation of a hill, in the units of x and y
 * @returns x, y of the points of each line, the longest line first
 */
export function contoursAround(
  nodes: readonly number[],
  { x, y }: { readonly x: ArrayLike<number>; readonly y: ArrayLike<number> },
  reach: number,
): Float32Array[] {
  if (nodes.length === 0) return [];
  const field = densityOf(nodes, x, y, reach);
  return linesAt(field, LEVEL).sort((a, b) => b.length - a.length);
}

/** Nodes counted in the cells of a grid, and spread by a Gaussian along rows and then along columns. */
function densityOf(
  nodes: readonly number[],
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  reach: number,
): Field {
  const { left, right, top, bottom } = boundsOf(nodes, x, y);
  const room = 3.5 * reach;
  const area = (right - left + 2 * room) * (bottom - top + 2 * room);
  const cell = Math.max(CELL, reach / 6, Math.sqrt(area / MOST_CELLS));
  const columns = Math.ceil((right - left + 2 * room) / cell) + 1;
  const rows = Math.ceil((bottom - top + 2 * room) / cell) + 1;
  const count = new Float32Array(columns * rows);
  // A node counts in the four cells round it by how near they are, so that lines move smoothly with it.
  for (const v of nodes) {
    const [gx, gy] = [(x[v] - left + room) / cell, (y[v] - top + room) / cell];
    const [cx, cy] = [Math.floor(gx), Math.floor(gy)];
    const [fx, fy] = [gx - cx, gy - cy];
    const at = cy * columns + cx;
    count[at] += (1 - fx) * (1 - fy);
    count[at + 1] += fx * (1 - fy);
    count[at + columns] += (1 - fx) * fy;
    count[at + columns + 1] += fx * fy;
  }
  const hill = hillOf(reach / cell);
  const across = spread(count, columns, rows, hill, 1);
  const value = spread(across, columns, rows, hill, columns);
  return { left: left - room, top: top - room, cell, columns, rows, value };
}

/** A Gaussian of height 1, from its middle to one side. */
function hillOf(sigma: number): Float32Array {
  const hill = new Float32Array(Math.ceil(3 * sigma) + 1);
  for (let i = 0; i < hill.length; i++) hill[i] = Math.exp((-i * i) / (2 * sigma * sigma));
  return hill;
}

/** @param step 1 to spread along rows, the number of columns to spread along columns */
function spread(
  from: Float32Array,
  columns: number,
  rows: number,
  hill: Float32Array,
  step: number,
): Float32Array {
  const to = new Float32Array(from.length);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const at = r * columns + c;
      const value = from[at];
      if (value === 0) continue;
      const [place, most] = step === 1 ? [c, columns - 1] : [r, rows - 1];
      const before = Math.min(hill.length - 1, place);
      const after = Math.min(hill.length - 1, most - place);
      for (let i = -before; i <= after; i++) to[at + i * step] += value * hill[Math.abs(i)];
    }
  return to;
}

/** Sides of a cell that a line joins, by which corners are high: bit 1 upper left, 2 upper right, 4 lower right, 8 lower left. */
// prettier-ignore
const JOINS: readonly (readonly (readonly [from: Side, to: Side])[])[] = [
  [], [['left', 'top']], [['top', 'right']], [['left', 'right']],
  [['right', 'bottom']], [['left', 'top'], ['right', 'bottom']], [['top', 'bottom']], [['left', 'bottom']],
  [['bottom', 'left']], [['bottom', 'top']], [['top', 'right'], ['bottom', 'left']], [['bottom', 'right']],
  [['right', 'left']], [['right', 'top']], [['top', 'left']], [],
];
type Side = 'left' | 'top' | 'right' | 'bottom';

/** The closed lines at which a field crosses a level; its border lies below that. @returns x, y of their points */
export function linesAt(field: Field, level: number): Float32Array[] {
  const { columns, rows, value } = field;
  // Each crossed side of a cell is known by a number: those along rows are even, those along columns odd.
  const next = new Map<number, number>();
  for (let r = 0; r + 1 < rows; r++)
    for (let c = 0; c + 1 < columns; c++) {
      const at = r * columns + c;
      const corners =
        (value[at] >= level ? 1 : 0) +
        (value[at + 1] >= level ? 2 : 0) +
        (value[at + columns + 1] >= level ? 4 : 0) +
        (value[at + columns] >= level ? 8 : 0);
      for (const [from, to] of JOINS[corners]) next.set(sideOf(from, at, columns), sideOf(to, at, columns));
    }
  const lines: Float32Array[] = [];
  for (const start of next.keys()) {
    const points: number[] = [];
    for (let side: number | undefined = start; side !== undefined;) {
      points.push(...crossing(field, side, level));
      const following: number | undefined = next.get(side);
      next.delete(side);
      side = following === undefined || !next.has(following) ? undefined : following;
    }
    if (points.length >= 6) lines.push(Float32Array.from(points));
  }
  return lines;
}

function sideOf(side: Side, at: number, columns: number): number {
  switch (side) {
    case 'top':
      return 2 * at;
    case 'bottom':
      return 2 * (at + columns);
    case 'left':
      return 2 * at + 1;
    case 'right':
      return 2 * (at + 1) + 1;
  }
}

/** Where the line crosses a side, between its two corners. */
function crossing({ left, top, cell, columns, value }: Field, side: number, level: number): [number, number] {
  const at = side >> 1;
  const isAlongRow = side % 2 === 0;
  const other = isAlongRow ? at + 1 : at + columns;
  const share = (level - value[at]) / (value[other] - value[at]);
  const [c, r] = [at % columns, Math.floor(at / columns)];
  return [left + cell * (c + (isAlongRow ? share : 0)), top + cell * (r + (isAlongRow ? 0 : share))];
}
