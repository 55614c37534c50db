import { weakComponents } from '../../graph/components';
import { neighbourRows, outRows, withoutSelfLoops, type Csr } from '../../graph/csr';
import type { Graph } from '../../graph/graph';
import { strongComponents } from '../../graph/strong';
import { Random } from '../../random';
import { corePeriphery } from './corePeriphery';
import { tiedPartners } from '../circle/neighbourhood';
import { rewired } from './rewired';

/** What a whole network is like; self-ties have no part in anything but their own number. */
export interface WholeFigures {
  readonly nodes: number;
  /** Ties between two nodes: directed ones, or pairs. */
  readonly ties: number;
  readonly selfTies: number;
  /** Ties over those that could be: n (n - 1), or half of it without direction; NaN below two nodes. */
  readonly density: number;
  /** Ties over nodes when directed; twice that without direction. */
  readonly meanDegree: number;
  /** Of all directed ties, the share that is answered by one the other way; NaN without direction or ties. */
  readonly reciprocity: number;
  readonly weakComponents: number;
  readonly largestWeak: number;
  /** NaN without direction. */
  readonly strongComponents: number;
  readonly largestStrong: number;
  readonly isolates: number;
  /** Most steps between two nodes of the largest component, and their mean, without direction. */
  readonly diameter: number;
  readonly meanDistance: number;
  /** Start nodes from which distances were sampled, the diameter being a lower bound then; null where all were used. */
  readonly sampledStarts: number | null;
  /** Three times the triangles over the pairs of partners (transitivity, Newman 2003), without direction; NaN without such pairs. */
  readonly transitivity: number;
  /** Correlation of the degrees at both ends of a tie, without direction (Newman 2002); NaN where all are alike. */
  readonly assortativity: number;
  /** How much one node stands out by degree: 0 where all are alike, 1 in a star (Freeman 1979), without direction; NaN below three nodes. */
  readonly centralisation: number;
  /** Share of all tie ends that the first 1 and 10 per cent of the nodes by degree have, one node at least. */
  readonly top1: number;
  readonly top10: number;
  /** How well it is a core and a periphery (Borgatti & Everett 1999), and the nodes of that core. */
  readonly corePeriphery: number;
  readonly coreSize: number;
}

/** A figure beside what networks with the same degrees and ties by chance have. */
export interface Compared {
  readonly mean: number;
  readonly deviation: number;
}

/** Starts x ties that exact distances may take. */
const EXACT_WORK = 1e9;
/** And those of each random network. */
const CHANCE_WORK = 2e7;

export function wholeFigures(graph: Graph, directed: boolean, seed = 1): WholeFigures {
  const n = graph.nodeCount;
  const either = withoutSelfLoops(neighbourRows(graph));
  const out = directed ? withoutSelfLoops(outRows(graph)) : either;
  const ties = directed ? out.neighbour.length : either.neighbour.length / 2;
  let selfTies = 0;
  for (let e = 0; e < graph.source.length; e++) if (graph.source[e] === graph.target[e]) selfTies++;
  const weak = weakComponents(graph);
  const strong = directed ? strongComponents(out) : null;
  const degree = degreesOf(either);
  const possible = (n * (n - 1)) / (directed ? 1 : 2);
  const core = corePeriphery(either);
  return {
    nodes: n,
    ties,
    selfTies,
    density: possible > 0 ? ties / possible : NaN,
    meanDegree: n > 0 ? (directed ? ties : 2 * ties) / n : NaN,
    reciprocity: directed ? reciprocity(out) : NaN,
    weakComponents: weak.count,
    largestWeak: weak.size[0] ?? 0,
    strongComponents: strong ? strong.count : NaN,
    largestStrong: strong ? strong.largest : NaN,
    isolates: degree.reduce((sum, d) => sum + (d === 0 ? 1 : 0), 0),
    ...distances(either, weak.of, seed, EXACT_WORK),
    transitivity: transitivity(either),
    assortativity: assortativity(either),
    centralisation: centralisation(degree),
    top1: topShare(degree, 0.01),
    top10: topShare(degree, 0.1),
    corePeriphery: core.fit,
    coreSize: core.core,
  };
}

/** Figures that chance can be set against, since they are not given by the degrees. */
export const COMPARED = [
  'reciprocity',
  'transitivity',
  'assortativity',
  'corePeriphery',
  'meanDistance',
  'diameter',
  'weakComponents',
  'largestWeak',
  'strongComponents',
  'largestStrong',
] as const;
export type ComparedFigure = (typeof COMPARED)[number];

/**
 * The same figures of random networks with the same degrees (of directed ones in- and out-degrees), made by exchanging ends of ties
 * (Maslov & Sneppen 2002): their mean and standard deviation.
 */
export function comparedFigures(
  graph: Graph,
  directed: boolean,
  { networks, seed, progress }: { networks: number; seed: number; progress?: (share: number) => void },
): Record<ComparedFigure, Compared> {
  const chance = new Random(seed);
  const drawn: Record<ComparedFigure, number>[] = [];
  for (let k = 0; k < networks; k++) {
    progress?.(k / networks);
    const other = rewired(graph, directed, chance);
    const either = neighbourRows(other);
    const out = directed ? outRows(other) : null;
    const weak = weakComponents(other);
    const strong = out && strongComponents(out);
    const { meanDistance, diameter } = distances(either, weak.of, seed, CHANCE_WORK);
    drawn.push({
      reciprocity: out ? reciprocity(out) : NaN,
      transitivity: transitivity(either),
      assortativity: assortativity(either),
      corePeriphery: corePeriphery(either).fit,
      meanDistance,
      diameter,
      weakComponents: weak.count,
      largestWeak: weak.size[0] ?? 0,
      strongComponents: strong?.count ?? NaN,
      largestStrong: strong?.largest ?? NaN,
    });
  }
  return Object.fromEntries(COMPARED.map((name) => [name, spread(drawn.map((one) => one[name]))])) as Record<
    ComparedFigure,
    Compared
  >;
}

function spread(values: readonly number[]): Compared {
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  const squares = values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  return { mean, deviation: values.length > 1 ? Math.sqrt(squares / (values.length - 1)) : NaN };
}

function degreesOf({ nodeCount, offset }: Csr): Uint32Array {
  return Uint32Array.from({ length: nodeCount }, (_, v) => offset[v + 1] - offset[v]);
}

/** @param out rows of ties out of each node, without self-loops */
export function reciprocity(out: Csr): number {
  const { nodeCount, offset, neighbour } = out;
  let answered = 0;
  const isTarget = new Int32Array(nodeCount).fill(-1);
  const sources = reversed(out);
  for (let v = 0; v < nodeCount; v++) {
    for (let i = offset[v]; i < offset[v + 1]; i++) isTarget[neighbour[i]] = v;
    for (let i = sources.offset[v]; i < sources.offset[v + 1]; i++)
      if (isTarget[sources.neighbour[i]] === v) answered++;
  }
  return neighbour.length > 0 ? answered / neighbour.length : NaN;
}

function reversed({ nodeCount, offset, neighbour }: Csr): Pick<Csr, 'offset' | 'neighbour'> {
  const start = new Uint32Array(nodeCount + 1);
  for (const u of neighbour) start[u + 1]++;
  for (let v = 0; v < nodeCount; v++) start[v + 1] += start[v];
  const next = start.slice();
  const from = new Uint32Array(neighbour.length);
  for (let v = 0; v < nodeCount; v++)
    for (let i = offset[v]; i < offset[v + 1]; i++) from[next[neighbour[i]]++] = v;
  return { offset: start, neighbour: from };
}

/** @param rows without direction and self-loops */
export function transitivity(rows: Csr): number {
  const pairs = degreesOf(rows).reduce((sum, degree) => sum + degree * (degree - 1), 0);
  const closed = tiedPartners(rows).reduce((sum, count) => sum + count, 0);
  return pairs > 0 ? closed / pairs : NaN;
}

/** @param rows without direction and self-loops */
export function assortativity(rows: Csr): number {
  const { nodeCount, offset, neighbour } = rows;
  const degree = degreesOf(rows);
  const ends = neighbour.length;
  let product = 0;
  let sum = 0;
  let squares = 0;
  for (let v = 0; v < nodeCount; v++)
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      product += degree[v] * degree[neighbour[i]];
      sum += degree[v];
      squares += degree[v] ** 2;
    }
  const mean = sum / ends;
  const variance = squares / ends - mean ** 2;
  return variance > 1e-12 ? (product / ends - mean ** 2) / variance : NaN;
}

function centralisation(degree: Uint32Array): number {
  const n = degree.length;
  if (n < 3) return NaN;
  let most = 0;
  let sum = 0;
  for (const d of degree) {
    if (d > most) most = d;
    sum += d;
  }
  return (n * most - sum) / ((n - 1) * (n - 2));
}

function topShare(degree: Uint32Array, share: number): number {
  const falling = degree.slice().sort().reverse();
  const count = Math.max(1, Math.floor(falling.length * share));
  const all = falling.reduce((a, b) => a + b, 0);
  return all > 0 ? falling.subarray(0, count).reduce((a, b) => a + b, 0) / all : NaN;
}

function distances(
  rows: Csr,
  component: Uint32Array,
  seed: number,
  exactWork: number,
): Pick<WholeFigures, 'diameter' | 'meanDistance' | 'sampledStarts'> {
  const { nodeCount, offset, neighbour } = rows;
  const members = Uint32Array.from({ length: nodeCount }, (_, v) => v).filter((v) => component[v] === 0);
  if (members.length < 2) return { diameter: 0, meanDistance: NaN, sampledStarts: null };
  const work = neighbour.length + members.length;
  const isExact = members.length * work <= exactWork;
  const starts = isExact
    ? members
    : new Random(seed).shuffle(members.slice()).slice(0, Math.max(50, Math.floor(exactWork / work)));
  const distance = new Int32Array(nodeCount);
  const queue = new Uint32Array(members.length);
  let diameter = 0;
  let sum = 0;
  for (const start of starts) {
    distance.fill(-1);
    distance[start] = 0;
    queue[0] = start;
    let tail = 1;
    for (let head = 0; head < tail; head++) {
      const v = queue[head];
      sum += distance[v];
      if (distance[v] > diameter) diameter = distance[v];
      for (let i = offset[v]; i < offset[v + 1]; i++) {
        const u = neighbour[i];
        if (distance[u] >= 0) continue;
        distance[u] = distance[v] + 1;
        queue[tail++] = u;
      }
    }
  }
  return {
    diameter,
    meanDistance: sum / (starts.length * (members.length - 1)),
    sampledStarts: isExact ? null : starts.length,
  };
}
