import type { Csr } from '../../graph/csr';
import { columnCrossings } from '../fewCrossings/crossings';
import { rowsOf, type Placement, type PlacedInput } from '../common/placed';

const ROUNDS = 24;
/** Width of the picture for its height. */
const WIDE = 1.1;
const NARROWEST = 320;

/**
 * Two columns, one for each sort of nodes of a two-mode network (of another network: nodes that only receive on the right), each ordered by
 * the middle of its neighbours, to and fro, for few crossings (Sugiyama, Tagawa & Toda 1981, IEEE Transactions SMC 11).
 */
export const columns: Placement = (input, x, y) => {
  const rows = rowsOf(input);
  const side = sidesOf(input);
  const [left, right] = columnOrder(input.nodes, side, rows);
  const height = Math.max(heightOf(left, input), heightOf(right, input));
  const width = Math.max(NARROWEST, Math.min(height * WIDE, 1400));
  for (const [order, at] of [
    [left, 0],
    [right, width],
  ] as const) {
    const own = heightOf(order, input);
    // The shorter column is spread over the height of the longer one.
    const room = order.length > 0 ? (height - own) / order.length : 0;
    let top = 0;
    for (const v of order) {
      const high = 2 * input.radius[v] + GAP + room;
      x[v] = at;
      y[v] = top + high / 2;
      top += high;
    }
  }
};

const GAP = 5;

function heightOf(order: readonly number[], { radius }: PlacedInput): number {
  return order.reduce((sum, v) => sum + 2 * radius[v] + GAP, 0);
}

function sidesOf({ data, graph }: PlacedInput): Uint8Array {
  if (data.sides) return data.sides;
  const sends = new Uint8Array(graph.nodeCount);
  for (let e = 0; e < graph.source.length; e++)
    if (graph.source[e] !== graph.target[e]) sends[graph.source[e]] = 1;
  return sends.map((one) => 1 - one);
}

/** The order of either column; the best of the rounds by crossings. */
function columnOrder(
  nodes: readonly number[],
  side: Uint8Array,
  { offset, neighbour }: Csr,
): [left: number[], right: number[]] {
  const degree = (v: number): number => offset[v + 1] - offset[v];
  const begin = (s: number): number[] =>
    nodes.filter((v) => side[v] === s).sort((a, b) => degree(b) - degree(a) || a - b);
  const now: [number[], number[]] = [begin(0), begin(1)];
  const place = new Float64Array(offset.length);
  const settle = (s: 0 | 1): void => now[s].forEach((v, i) => (place[v] = i));
  settle(0);
  settle(1);
  const crossings = (): number => {
    const ends: [number[], number[]] = [[], []];
    for (const v of now[0])
      for (let i = offset[v]; i < offset[v + 1]; i++)
        if (side[neighbour[i]] === 1) {
          ends[0].push(place[v]);
          ends[1].push(place[neighbour[i]]);
        }
    return columnCrossings(ends[0], ends[1]);
  };
  let best = { crossings: crossings(), order: [[...now[0]], [...now[1]]] as [number[], number[]] };
  for (let round = 0; round < ROUNDS && best.crossings > 0; round++) {
    const s = round % 2 === 0 ? 1 : 0;
    const other = 1 - s;
    const middle = (v: number): number => {
      let [sum, count] = [0, 0];
      for (let i = offset[v]; i < offset[v + 1]; i++)
        if (side[neighbour[i]] === other) {
          sum += place[neighbour[i]];
          count++;
        }
      return count > 0 ? sum / count : (place[v] / Math.max(1, now[s].length)) * now[other].length;
    };
    const wanted = new Map(now[s].map((v) => [v, middle(v)]));
    now[s] = [...now[s]].sort((a, b) => wanted.get(a)! - wanted.get(b)! || place[a] - place[b]);
    settle(s);
    const found = crossings();
    if (found < best.crossings) best = { crossings: found, order: [[...now[0]], [...now[1]]] };
  }
  return best.order;
}
