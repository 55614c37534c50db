import type { Graph } from '../../graph/graph';
import { Random } from '../../random';
import { countCrossings, doCross } from './crossings';
import { span } from '../common/finish';
import type { Running } from '../common/running';
import { Stress } from '../stress/stress';

/** Nodes that such a picture may have: beyond, crossings cannot be avoided, nor followed. */
const MOST_FOR_FEW_CROSSINGS = 60;
const STRESS_ROUNDS = 120;
const ROUNDS = 160;
/** Worlds that are tried from other beginnings while ties cross. */
const BEGINNINGS = 6;

/**
 * A picture of a small network with as few crossings as are found: begun by distances, then nodes are moved one by one to other places where
 * fewer ties cross, sometimes also to a little worse ones, less and less often (in the manner of Davidson & Harel 1996, ACM Transactions on
 * Graphics 15). Not always the fewest possible. Without direction and self-loops.
 */
export class FewCrossings implements Running {
  readonly x: Float64Array;
  readonly y: Float64Array;
  iterations = 0;
  private readonly ties: { source: number[]; target: number[] };
  private readonly own: number[][];
  private readonly chance: Random;
  private best: { crossings: number; x: Float64Array; y: Float64Array };
  private crossings: number;
  private beginning = 0;

  constructor(
    private readonly graph: Graph,
    private readonly seed: number,
  ) {
    const n = graph.nodeCount;
    if (n > MOST_FOR_FEW_CROSSINGS)
      throw new RangeError(`With few crossings at most ${MOST_FOR_FEW_CROSSINGS} nodes can be arranged.`);
    this.chance = new Random(seed);
    this.ties = onceEach(graph);
    this.own = Array.from({ length: n }, (_, v) =>
      [...this.ties.source.keys()].filter((e) => this.ties.source[e] === v || this.ties.target[e] === v),
    );
    const begun = byDistances(graph, seed);
    this.x = begun.x;
    this.y = begun.y;
    this.crossings = countCrossings(this.ties, this.x, this.y);
    this.best = { crossings: this.crossings, x: this.x.slice(), y: this.y.slice() };
  }

  get atRest(): boolean {
    return this.best.crossings === 0 || this.iterations >= ROUNDS * BEGINNINGS;
  }

  iterate(): void {
    const { x, y, own, chance } = this;
    const n = x.length;
    const round = this.iterations % ROUNDS;
    if (round === 0 && this.iterations > 0) this.beginAgain();
    const heat = 1.5 * (1 - round / ROUNDS) ** 2;
    const { left, top, width, height } = span(x, y);
    for (let k = 0; k < n; k++) {
      const v = chance.below(n);
      const [oldX, oldY] = [x[v], y[v]];
      const before = this.crossingsOf(own[v]);
      const far = chance.chance(0.3);
      const reach = far ? 1 : 0.25;
      x[v] = far ? left + chance.real() * width : oldX + (chance.real() - 0.5) * width * reach;
      y[v] = far ? top + chance.real() * height : oldY + (chance.real() - 0.5) * height * reach;
      const change = this.crossingsOf(own[v]) - before;
      const isKept =
        change < 0 ||
        (change === 0 && this.hasRoom(v)) ||
        chance.real() * change < heat * chance.real() * 0.2;
      if (!isKept || !this.hasRoom(v)) {
        x[v] = oldX;
        y[v] = oldY;
        continue;
      }
      this.crossings += change;
      if (this.crossings < this.best.crossings)
        this.best = { crossings: this.crossings, x: x.slice(), y: y.slice() };
    }
    this.iterations++;
    if (this.atRest) {
      x.set(this.best.x);
      y.set(this.best.y);
    }
  }

  private beginAgain(): void {
    const begun = byDistances(this.graph, this.seed + ++this.beginning);
    this.x.set(begun.x);
    this.y.set(begun.y);
    this.crossings = countCrossings(this.ties, this.x, this.y);
  }

  private crossingsOf(edges: readonly number[]): number {
    let count = 0;
    for (const e of edges)
      for (let f = 0; f < this.ties.source.length; f++) if (doCross(this.ties, e, f, this.x, this.y)) count++;
    return count;
  }

  /** Whether a node stands on no other, nor on a tie that is not its own. */
  private hasRoom(v: number): boolean {
    const { x, y, ties } = this;
    for (let u = 0; u < x.length; u++)
      if (u !== v && (x[u] - x[v]) ** 2 + (y[u] - y[v]) ** 2 < NEAREST * NEAREST) return false;
    for (let e = 0; e < ties.source.length; e++) {
      const [a, b] = [ties.source[e], ties.target[e]];
      if (a === v || b === v) continue;
      const dx = x[b] - x[a];
      const dy = y[b] - y[a];
      const t = Math.max(
        0,
        Math.min(1, ((x[v] - x[a]) * dx + (y[v] - y[a]) * dy) / (dx * dx + dy * dy + 1e-9)),
      );
      if ((x[v] - x[a] - t * dx) ** 2 + (y[v] - y[a] - t * dy) ** 2 < (NEAREST * NEAREST) / 4) return false;
    }
    return true;
  }
}

const NEAREST = 16;

function byDistances(graph: Graph, seed: number): Stress {
  const stress = new Stress(graph, seed);
  while (!stress.atRest && stress.iterations < STRESS_ROUNDS) stress.iterate();
  return stress;
}

function onceEach({ nodeCount, source, target }: Graph): { source: number[]; target: number[] } {
  const seen = new Set<number>();
  const ties = { source: [] as number[], target: [] as number[] };
  for (let e = 0; e < source.length; e++) {
    const [a, b] = [Math.min(source[e], target[e]), Math.max(source[e], target[e])];
    if (a === b || seen.has(a * nodeCount + b)) continue;
    seen.add(a * nodeCount + b);
    ties.source.push(a);
    ties.target.push(b);
  }
  return ties;
}
