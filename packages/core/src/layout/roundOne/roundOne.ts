import type { Csr } from '../../graph/csr';
import { pitchOf, rowsOf, type PlacedInput, type Placement } from '../common/placed';
import { roundPoint } from '../common/roundPoint';

const TURN = 2 * Math.PI;

const NEAREST = 130;
/** Room between the neighbours and what is tied to these. */
const BEYOND = 90;

/** A part of the round, by its middle and how far it reaches to either side, in turns clockwise from the top. */
interface Sector {
  readonly middle: number;
  readonly half: number;
}

const LEFT: Sector = { middle: 0.75, half: 0.145 };
const RIGHT: Sector = { middle: 0.25, half: 0.145 };
const ABOVE: Sector = { middle: 0, half: 0.095 };
const ROUND: Sector = { middle: 0, half: 0.5 };

/**
 * One node in the middle: to its left those with a tie to it alone, to its right those that it has a tie to alone, above those with ties
 * both ways; without directions all round it. The strongest stand nearest. What is tied to these stands farther out in their direction.
 * The middle is the chosen node, or the one with most ties.
 */
export const roundOne: Placement = (input, x, y) => {
  if (input.nodes.length === 0) return;
  const centre = centreOf(input);
  const { into, out } = weights(input, centre);
  const sides = new Map<Sector, number[]>();
  for (const v of input.nodes) {
    if (v === centre || (into[v] === 0 && out[v] === 0)) continue;
    const sector = !input.data.directed ? ROUND : into[v] === 0 ? RIGHT : out[v] === 0 ? LEFT : ABOVE;
    sides.set(sector, [...(sides.get(sector) ?? []), v]);
  }
  const pitch = pitchOf(input, 10);
  const isPlaced = new Uint8Array(input.graph.nodeCount);
  isPlaced[centre] = 1;
  let reach = NEAREST;
  for (const [sector, members] of sides) {
    members.sort((a, b) => into[b] + out[b] - into[a] - out[a] || a - b);
    reach = Math.max(reach, placeInArcs(members, sector, pitch, x, y));
    for (const v of members) isPlaced[v] = 1;
  }
  placeBeyond(input, isPlaced, reach + BEYOND, pitch, x, y);
};

function centreOf({ nodes, settings, graph }: PlacedInput): number {
  if (settings.centre !== null && nodes.includes(settings.centre)) return settings.centre;
  const ties = new Uint32Array(graph.nodeCount);
  for (const v of graph.source) ties[v]++;
  for (const v of graph.target) ties[v]++;
  return nodes.reduce((best, v) => (ties[v] > ties[best] ? v : best), nodes[0]);
}

/** Weights of the ties to and from the middle, by node. */
function weights({ graph }: PlacedInput, centre: number): { into: Float64Array; out: Float64Array } {
  const into = new Float64Array(graph.nodeCount);
  const out = new Float64Array(graph.nodeCount);
  for (let e = 0; e < graph.source.length; e++) {
    if (graph.target[e] === centre) into[graph.source[e]] += graph.weight[e];
    if (graph.source[e] === centre) out[graph.target[e]] += graph.weight[e];
  }
  return { into, out };
}

/** Sets nodes on arcs one outside of the other, each from its middle to both sides; returns how far the last one reaches. */
function placeInArcs(
  members: readonly number[],
  { middle, half }: Sector,
  pitch: number,
  x: Float64Array,
  y: Float64Array,
): number {
  let at = 0;
  let reach = NEAREST;
  for (let row = 0; at < members.length; row++) {
    reach = NEAREST + row * pitch * 1.15;
    const step = pitch / reach / TURN;
    const isWhole = half >= 0.5;
    const room = isWhole ? Math.floor(1 / step) : Math.floor((2 * half) / step) + 1;
    const inRow = Math.min(Math.max(1, room), members.length - at);
    // A row that is not full is spread over its arc, up to twice as wide.
    const gap = isWhole ? 1 / inRow : Math.min((2 * half) / Math.max(1, inRow - 1), 2 * step);
    for (let i = 0; i < inRow; i++) {
      const aside = Math.ceil(i / 2) * (i % 2 === 0 ? 1 : -1) + (inRow % 2 === 0 ? 0.5 : 0);
      put(members[at + i], reach, middle + aside * gap, x, y);
    }
    at += inRow;
  }
  return reach;
}

function put(v: number, reach: number, turns: number, x: Float64Array, y: Float64Array): void {
  const point = roundPoint(turns);
  x[v] = reach * point.x;
  y[v] = reach * point.y;
}

/** What is not tied to the middle itself stands outside, step by step, in the direction of those by which it is reached. */
function placeBeyond(
  input: PlacedInput,
  isPlaced: Uint8Array,
  begin: number,
  pitch: number,
  x: Float64Array,
  y: Float64Array,
): void {
  let left = input.nodes.filter((v) => !isPlaced[v]);
  let reach = begin;
  const rows = rowsOf(input);
  while (left.length > 0) {
    const found = left.map((v) => ({ v, ...directionOf(v, rows, isPlaced, x, y) }));
    const reached = found.filter(({ count }) => count > 0);
    // What hangs together with nothing here is set all round.
    const ring = reached.length > 0 ? reached : found.map((one, i) => ({ ...one, turns: i / found.length }));
    ring.sort((a, b) => a.turns - b.turns || a.v - b.v);
    reach = Math.max(reach, (ring.length * pitch) / TURN);
    placeInRing(ring, reach, pitch, x, y);
    for (const { v } of ring) isPlaced[v] = 1;
    left = left.filter((v) => !isPlaced[v]);
    reach += BEYOND;
  }
}

/** In which direction those stand that a node is tied to, and how many there are. */
function directionOf(
  v: number,
  { offset, neighbour }: Csr,
  isPlaced: Uint8Array,
  x: Float64Array,
  y: Float64Array,
): { count: number; turns: number } {
  let [sumX, sumY, count] = [0, 0, 0];
  for (let i = offset[v]; i < offset[v + 1]; i++) {
    const u = neighbour[i];
    if (!isPlaced[u] || (x[u] === 0 && y[u] === 0)) continue;
    sumX += x[u];
    sumY += y[u];
    count++;
  }
  return { count, turns: turnsOf(sumX, sumY) };
}

/** Each as near to its direction as the others leave room. */
function placeInRing(
  ring: readonly { readonly v: number; readonly turns: number }[],
  reach: number,
  pitch: number,
  x: Float64Array,
  y: Float64Array,
): void {
  const least = pitch / reach / TURN;
  const from = ring[0].turns;
  let last = -Infinity;
  const pushed = ring.map(({ v, turns }) => ({ v, turns: (last = Math.max(last + least, turns)) }));
  // Pushed on beyond a whole round, they are drawn together.
  const shrink = last - from > 1 - least ? (1 - least) / (last - from) : 1;
  for (const { v, turns } of pushed) put(v, reach, from + (turns - from) * shrink, x, y);
}

/**
 * About in which direction a point lies, in turns clockwise from the top: it grows with the angle, and is right to a hundredth of a turn. Made
 * of + - / alone, so that it is the same in every engine.
 */
function turnsOf(x: number, y: number): number {
  const sum = Math.abs(x) + Math.abs(y);
  if (sum === 0) return 0;
  if (x >= 0) return y <= 0 ? x / sum / 4 : (1 + y / sum) / 4;
  return y >= 0 ? (2 - x / sum) / 4 : (3 - y / sum) / 4;
}
