import { neighbourRows } from '../../graph/csr';
import { groupRows, numberKeys, pick, setOf } from './rows';
import type { EvidenceRows, Woven } from './woven';

/** Messages behind a node: all in which it stands. */
export function messagesOfNode(rows: EvidenceRows, node: number): number[] {
  const [from, until] = rangeOf(rows.node, node);
  return inOrder(rows, range(from, until));
}

/**
 * Messages behind the tie of two nodes: those of either in a unit that both have.
 * @param window milliseconds within which messages of both must lie; null for any
 */
export function messagesOfTie(
  rows: EvidenceRows,
  a: number,
  b: number,
  window: number | null = null,
): number[] {
  const [fromA, untilA] = rangeOf(rows.node, a);
  const [fromB, untilB] = rangeOf(rows.node, b);
  const found: number[] = [];
  // Both ranges are ordered by unit.
  for (let i = fromA, j = fromB; i < untilA && j < untilB;) {
    const unit = rows.unit[i];
    if (unit < rows.unit[j]) i++;
    else if (unit > rows.unit[j]) j++;
    else {
      let endI = i;
      let endJ = j;
      while (endI < untilA && rows.unit[endI] === unit) endI++;
      while (endJ < untilB && rows.unit[endJ] === unit) endJ++;
      const [mine, theirs] = [range(i, endI), range(j, endJ)];
      const isNear = (x: number, others: readonly number[]): boolean =>
        window === null || others.some((y) => Math.abs(rows.time[x] - rows.time[y]) <= window);
      found.push(...mine.filter((x) => isNear(x, theirs)), ...theirs.filter((y) => isNear(y, mine)));
      i = endI;
      j = endJ;
    }
  }
  return inOrder(rows, found);
}

/** Ties by the places of their ends. */
interface Ends {
  readonly source: ArrayLike<number>;
  readonly target: ArrayLike<number>;
}

/** How many messages make the ties of a network. */
export function messagesBehind(woven: Woven): number {
  if (woven.countMessages) return woven.countMessages(woven);
  return woven.evidence ? messagesOfTies(woven.evidence(), woven, woven.window ?? null).length : 0;
}

/**
 * Messages behind some ties of a network, each once, in the order of their time: the same as those behind each of the ties, found unit by
 * unit, which is quicker for many ties.
 */
export function messagesOfTies(rows: EvidenceRows, ties: Ends, window: number | null = null): number[] {
  const nodes = rows.node.length === 0 ? 0 : rows.node[rows.node.length - 1] + 1;
  const within = Uint32Array.from({ length: ties.source.length }, (_, e) => e).filter(
    (e) => ties.source[e] < nodes && ties.target[e] < nodes,
  );
  const { offset, neighbour } = neighbourRows({
    nodeCount: nodes,
    source: pick(within, (e) => ties.source[e]),
    target: pick(within, (e) => ties.target[e]),
    weight: new Float64Array(within.length),
  });
  const all = new Uint32Array(rows.unit.length);
  for (let i = 0; i < all.length; i++) all[i] = i;
  const units = numberKeys(all, (i) => rows.unit[i]);
  const { start, values } = groupRows(units.count, units.of);
  const isTied = (v: number, w: number): boolean => {
    let low = offset[v];
    let high = offset[v + 1];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (neighbour[middle] < w) low = middle + 1;
      else high = middle;
    }
    return low < offset[v + 1] && neighbour[low] === w;
  };
  const standsIn = new Int32Array(nodes).fill(-1);
  const found: number[] = [];
  for (let u = 0; u < units.count; u++) {
    const own = values.subarray(start[u], start[u + 1]);
    for (const i of own) standsIn[rows.node[i]] = u;
    for (const i of own) {
      const v = rows.node[i];
      const degree = offset[v + 1] - offset[v];
      if (degree === 0) continue;
      let stands = false;
      if (window === null && degree < own.length)
        for (let n = offset[v]; n < offset[v + 1] && !stands; n++)
          stands = neighbour[n] !== v && standsIn[neighbour[n]] === u;
      else
        for (let j = 0; j < own.length && !stands; j++) {
          const other = own[j];
          const isNear = window === null || Math.abs(rows.time[i] - rows.time[other]) <= window;
          stands = isNear && rows.node[other] !== v && isTied(v, rows.node[other]);
        }
      if (stands) found.push(i);
    }
  }
  return inOrder(rows, found);
}

/** Ties of the network that a message helps to make: of a node in which it stands with every node that shares the unit. */
export function tiesOfMessage(
  rows: EvidenceRows,
  message: number,
  source: Uint32Array,
  target: Uint32Array,
): { source: number; target: number }[] {
  const own = new Map<number, Set<number>>();
  for (let i = 0; i < rows.message.length; i++)
    if (rows.message[i] === message) setOf(own, rows.unit[i]).add(rows.node[i]);
  const all = new Map<number, Set<number>>();
  for (let i = 0; i < rows.unit.length; i++)
    if (own.has(rows.unit[i])) setOf(all, rows.node[i]).add(rows.unit[i]);
  const ties: { source: number; target: number }[] = [];
  for (let e = 0; e < source.length; e++) {
    const [a, b] = [all.get(source[e]), all.get(target[e])];
    const isMade = (unit: number): boolean => {
      const nodes = own.get(unit)!;
      return b!.has(unit) && (nodes.has(source[e]) || nodes.has(target[e]));
    };
    if (a && b && [...a].some(isMade)) ties.push({ source: source[e], target: target[e] });
  }
  return ties;
}

/** Distinct messages, dated ones first and by their date. */
function inOrder(rows: EvidenceRows, at: readonly number[]): number[] {
  const time = new Map(at.map((i) => [rows.message[i], rows.time[i]]));
  return [...time]
    .sort(([a, s], [b, t]) => Number(Number.isNaN(s)) - Number(Number.isNaN(t)) || s - t || a - b || 0)
    .map(([message]) => message);
}

/** Where the rows of a node begin and end; rows are ordered by node. */
function rangeOf(nodes: Uint32Array, node: number): [number, number] {
  const first = (least: number): number => {
    let low = 0;
    let high = nodes.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (nodes[middle] < least) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  return [first(node), first(node + 1)];
}

function range(from: number, until: number): number[] {
  return Array.from({ length: until - from }, (_, i) => from + i);
}
