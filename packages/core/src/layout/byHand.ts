import { roundPoint } from './common/roundPoint';

/** Where nodes lie, by node. */
interface Places {
  readonly x: ArrayLike<number>;
  readonly y: ArrayLike<number>;
}

/** What can be done by hand with the places of several nodes. */
export const HAND_MOVES = [
  'row',
  'column',
  'spread across',
  'spread down',
  'circle',
  'closer',
  'wider',
  'turn left',
  'turn right',
  'mirror across',
  'mirror down',
] as const;
export type HandMove = (typeof HAND_MOVES)[number];

const TURN = Math.PI / 12;
const WIDER = 1.25;
/** Room between neighbours on a circle, in the units of the places. */
const GAP = 12;

/**
 * New places of some nodes, one for each: in a row or a column at their mean height or width, spread so that all gaps are the same, on a
 * circle in the order in which they lie round their middle, drawn together or apart by a quarter, turned by 15 degrees, or mirrored.
 * Nothing else moves. The middle of the nodes stays where it is.
 * @param radius by node, in the same units
 */
export function movedByHand(
  move: HandMove,
  nodes: readonly number[],
  { x, y }: Places,
  radius: ArrayLike<number>,
): [number, number][] {
  const own = nodes.map((v): [number, number] => [x[v], y[v]]);
  const [mx, my] = middleOf(own);
  const each = (place: (dx: number, dy: number) => [number, number]): [number, number][] =>
    own.map(([px, py]) => {
      const [dx, dy] = place(px - mx, py - my);
      return [mx + dx, my + dy];
    });
  switch (move) {
    case 'row':
      return each((dx) => [dx, 0]);
    case 'column':
      return each((_, dy) => [0, dy]);
    case 'spread across':
      return spread(own, 0);
    case 'spread down':
      return spread(own, 1);
    case 'circle':
      return onCircle(nodes, own, [mx, my], radius);
    case 'closer':
      return each((dx, dy) => [dx / WIDER, dy / WIDER]);
    case 'wider':
      return each((dx, dy) => [dx * WIDER, dy * WIDER]);
    case 'turn left':
      return each((dx, dy) => turned(dx, dy, -TURN));
    case 'turn right':
      return each((dx, dy) => turned(dx, dy, TURN));
    case 'mirror across':
      return each((dx, dy) => [-dx, dy]);
    case 'mirror down':
      return each((dx, dy) => [dx, -dy]);
  }
}

function middleOf(places: readonly (readonly [number, number])[]): [number, number] {
  let [sx, sy] = [0, 0];
  for (const [px, py] of places) {
    sx += px;
    sy += py;
  }
  return [sx / places.length, sy / places.length];
}

function turned(dx: number, dy: number, angle: number): [number, number] {
  // A point on the circle is told by its sine to the right and its cosine upwards.
  const { x: s, y } = roundPoint(angle / (2 * Math.PI));
  return [-y * dx - s * dy, s * dx - y * dy];
}

/** The same gaps between all, in the order in which they lie; the outermost two stay. */
function spread(places: readonly (readonly [number, number])[], axis: 0 | 1): [number, number][] {
  const order = places.map((_, i) => i).sort((a, b) => places[a][axis] - places[b][axis] || a - b);
  const first = places[order[0]][axis];
  const last = places[order[order.length - 1]][axis];
  const step = order.length > 1 ? (last - first) / (order.length - 1) : 0;
  const after = places.map(([px, py]): [number, number] => [px, py]);
  order.forEach((i, rank) => (after[i][axis] = first + rank * step));
  return after;
}

function onCircle(
  nodes: readonly number[],
  places: readonly (readonly [number, number])[],
  [mx, my]: readonly [number, number],
  radius: ArrayLike<number>,
): [number, number][] {
  const angle = places.map(([px, py]) => angleOrder(px - mx, py - my));
  const order = places.map((_, i) => i).sort((a, b) => angle[a] - angle[b] || a - b);
  const around = nodes.reduce((sum, v) => sum + 2 * radius[v] + GAP, 0);
  const far = around / (2 * Math.PI);
  const after: [number, number][] = places.map(() => [mx, my]);
  let way = 0;
  for (const i of order) {
    const half = radius[nodes[i]] + GAP / 2;
    const { x, y } = roundPoint((way + half) / around);
    after[i] = [mx + far * x, my + far * y];
    way += 2 * half;
  }
  return after;
}

/** A number that grows as the angle does, from -2 to 2, made of divisions alone. */
function angleOrder(dx: number, dy: number): number {
  const reach = Math.abs(dx) + Math.abs(dy);
  if (reach === 0) return 0;
  return dy < 0 ? dx / reach - 1 : 1 - dx / reach;
}
