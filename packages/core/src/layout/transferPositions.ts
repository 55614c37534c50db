import { roundPoint } from './common/roundPoint';
import type { Csr } from '../graph/csr';

/** Distance of nodes that have no place of their own, in the units of the places. */
const GAP = 12;
const PASSES = 3;
const GOLDEN = 0.3819660112501051;

/** The places of a network taken over from another one. */
export interface BorrowedPlaces {
  readonly x: Float32Array;
  readonly y: Float32Array;
  /** Nodes that both have. */
  readonly common: number;
}

/**
 * Places the nodes of a network where those of the same name lie in another one. Others go round the mean of their placed neighbours, and
 * those without any into a row below all.
 * @param rows neighbours in the network that is placed
 * @param names of its nodes
 * @param places of the other network, by name
 */
export function transferPositions(
  rows: Csr,
  names: readonly string[],
  places: ReadonlyMap<string, readonly [x: number, y: number]>,
): BorrowedPlaces {
  const n = names.length;
  const x = new Float32Array(n);
  const y = new Float32Array(n);
  const isPlaced = new Uint8Array(n);
  let common = 0;
  let [left, bottom] = [Infinity, -Infinity];
  for (let v = 0; v < n; v++) {
    const place = places.get(names[v]);
    if (!place) continue;
    [x[v], y[v]] = place;
    isPlaced[v] = 1;
    common++;
  }
  for (const [px, py] of places.values()) {
    left = Math.min(left, px);
    bottom = Math.max(bottom, py);
  }
  for (let pass = 0; pass < PASSES; pass++) {
    const before = isPlaced.slice();
    for (let v = 0; v < n; v++) if (!isPlaced[v]) isPlaced[v] = placeByNeighbours(rows, v, before, x, y);
  }
  let row = 0;
  for (let v = 0; v < n; v++) {
    if (isPlaced[v]) continue;
    x[v] = (Number.isFinite(left) ? left : 0) + GAP * row++;
    y[v] = (Number.isFinite(bottom) ? bottom : 0) + 4 * GAP;
  }
  return { x, y, common };
}

/** 1 where a node has neighbours with places. Round their mean it goes by its number, so that several do not lie on each other. */
function placeByNeighbours(
  { offset, neighbour }: Csr,
  v: number,
  isPlaced: Uint8Array,
  x: Float32Array,
  y: Float32Array,
): 0 | 1 {
  let [count, sumX, sumY] = [0, 0, 0];
  for (let i = offset[v]; i < offset[v + 1]; i++) {
    const u = neighbour[i];
    if (!isPlaced[u] || u === v) continue;
    count++;
    sumX += x[u];
    sumY += y[u];
  }
  if (count === 0) return 0;
  const away = GAP * (1 + (v % 7) / 4);
  const round = roundPoint(v * GOLDEN);
  x[v] = sumX / count + away * round.x;
  y[v] = sumY / count + away * round.y;
  return 1;
}
