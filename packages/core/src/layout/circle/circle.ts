import type { Csr } from '../../graph/csr';
import { chordCrossings } from '../fewCrossings/crossings';
import { pitchOf, rowsOf, type Placement, type PlacedInput } from '../common/placed';
import { roundPoint } from '../common/roundPoint';

const ROUNDS = 30;
/** Ties above which crossings are not counted and the shortest chords decide. */
const MOST_COUNTED = 4000;

/** Nodes on one circle, ordered so that few ties cross. */
export const circle: Placement = (input, x, y) => {
  const order = circleOrder(input);
  let round = 0;
  for (const v of order) round += 2 * input.radius[v] + 6;
  const reach = Math.max(60, round / (2 * Math.PI), pitchOf(input, 0));
  // Larger nodes have more room of the circle.
  let at = 0;
  for (const v of order) {
    const own = 2 * input.radius[v] + 6;
    const point = roundPoint((at + own / 2) / round);
    x[v] = point.x * reach;
    y[v] = point.y * reach;
    at += own;
  }
};

/**
 * An order of the nodes round a circle with few crossings of chords: begun by groups, and by going along ties, each improved by rounds of
 * moving to the middle of neighbours; the better one.
 */
export function circleOrder(input: PlacedInput): number[] {
  const rows = rowsOf(input);
  const { nodes, data, graph } = input;
  const group = (v: number): number => data.groups?.[v] ?? 0;
  const byGroup = [...nodes].sort((a, b) => group(a) - group(b) || a - b);
  const ties = tiesAmong(rows, nodes);
  const isCounted = ties.source.length <= MOST_COUNTED;
  const place = new Float64Array(graph.nodeCount);
  const found = [byGroup, alongTies(byGroup, rows)].map((order, begin) =>
    improved(order, rows, place, {
      cost: (most) =>
        isCounted ? chordCrossings(ties, place, most) : chordLengths(ties, place, order.length),
      progress: (share) => input.progress?.((begin + share) / 2),
    }),
  );
  const best = found[1].cost < found[0].cost ? found[1] : found[0];
  best.order.forEach((v, i) => (place[v] = i));
  return isCounted ? swapped(best.order, place, rows) : best.order;
}

/** Each node followed by a neighbour that has fewest neighbours left, as far as one can go, then anew. */
function alongTies(nodes: readonly number[], { nodeCount, offset, neighbour }: Csr): number[] {
  const left = Uint32Array.from({ length: nodeCount }, (_, v) => offset[v + 1] - offset[v]);
  const isDone = new Uint8Array(nodeCount);
  const order: number[] = [];
  const begins = [...nodes].sort((a, b) => left[a] - left[b] || a - b);
  for (const begin of begins) {
    const open = [begin];
    while (open.length > 0) {
      const v = open.pop()!;
      if (isDone[v]) continue;
      isDone[v] = 1;
      order.push(v);
      const next: number[] = [];
      for (let i = offset[v]; i < offset[v + 1]; i++) {
        left[neighbour[i]]--;
        if (!isDone[neighbour[i]]) next.push(neighbour[i]);
      }
      // The last one is taken first.
      open.push(...next.sort((a, b) => left[b] - left[a] || b - a));
    }
  }
  return order;
}

interface Cost {
  /** Of the order that `place` tells; counting may end above `most`. */
  cost(most: number): number;
  progress(share: number): void;
}

function improved(
  begin: readonly number[],
  rows: Csr,
  place: Float64Array,
  { cost, progress }: Cost,
): { cost: number; order: number[] } {
  let order = [...begin];
  const settle = (): void => order.forEach((v, i) => (place[v] = i));
  settle();
  let best = { cost: cost(Infinity), order };
  for (let round = 0; round < ROUNDS && best.cost > 0; round++) {
    progress(round / ROUNDS);
    const wanted = middles(rows, order, place);
    order = [...order].sort((a, b) => wanted[a] - wanted[b] || place[a] - place[b]);
    settle();
    const now = cost(best.cost);
    if (now < best.cost) best = { cost: now, order };
  }
  return best;
}

/** Neighbours on the circle change places while that takes crossings away. */
function swapped(order: number[], place: Float64Array, { offset, neighbour }: Csr): number[] {
  const n = order.length;
  const places = (v: number): number[] =>
    Array.from(neighbour.subarray(offset[v], offset[v + 1]), (u) => place[u]);
  /** Crossings of the ties of u and v when u stands directly before v. */
  const between = (u: number, v: number): number => {
    let count = 0;
    const others = places(v).filter((p) => p !== place[u]);
    const begin = place[u];
    const turn = (p: number): number => (p - begin + n) % n;
    for (const p of places(u)) {
      if (p === place[v]) continue;
      for (const q of others) if (turn(p) < turn(q)) count++;
    }
    return count;
  };
  for (let round = 0, moved = true; moved && round < ROUNDS; round++) {
    moved = false;
    for (let i = 0; i < n; i++) {
      const j = (i + 1) % n;
      const [u, v] = [order[i], order[j]];
      const now = between(u, v);
      [place[u], place[v]] = [j, i];
      const then = between(v, u);
      if (then < now) {
        [order[i], order[j]] = [v, u];
        moved = true;
      } else [place[u], place[v]] = [i, j];
    }
  }
  return order;
}

/** Where each node would stand best: the mean of its neighbours' places and its own, gone round the nearer way. */
function middles({ offset, neighbour }: Csr, order: readonly number[], place: Float64Array): Float64Array {
  const n = order.length;
  const wanted = Float64Array.from(place);
  for (const v of order) {
    let sum = 0;
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      let way = place[neighbour[i]] - place[v];
      if (way > n / 2) way -= n;
      if (way < -n / 2) way += n;
      sum += way;
    }
    wanted[v] = place[v] + sum / (offset[v + 1] - offset[v] + 1);
  }
  return wanted;
}

function tiesAmong({ offset, neighbour }: Csr, nodes: readonly number[]) {
  const source: number[] = [];
  const target: number[] = [];
  for (const v of nodes)
    for (let i = offset[v]; i < offset[v + 1]; i++)
      if (neighbour[i] > v) {
        source.push(v);
        target.push(neighbour[i]);
      }
  return { source, target };
}

function chordLengths(
  { source, target }: { source: readonly number[]; target: readonly number[] },
  place: Float64Array,
  n: number,
): number {
  return source.reduce((sum, v, e) => {
    const way = Math.abs(place[v] - place[target[e]]);
    return sum + Math.min(way, n - way);
  }, 0);
}
