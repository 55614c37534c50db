import { neighbourRows, withoutSelfLoops, type Csr } from '../../graph/csr';
import type { Graph } from '../../graph/graph';
import { Random } from '../../random';
import type { Running } from '../common/running';

/** Ideal distance of tied nodes. */
const LENGTH = 40;
const ROUNDS = 400;
/** Nodes that a part may have: every pair repels in every round. */
const MOST_FOR_SPRINGS = 3000;

/**
 * Arrangement by springs (Fruchterman & Reingold 1991, Software: Practice and Experience 21): tied nodes attract with distance squared over
 * the ideal length, all repel with that length squared over distance, and moves are bounded by a temperature that falls to 0. Without
 * direction, weights and self-loops.
 */
export class Springs implements Running {
  readonly x: Float64Array;
  readonly y: Float64Array;
  iterations = 0;
  private readonly rows: Csr;

  constructor(graph: Graph, seed: number) {
    const n = graph.nodeCount;
    if (n > MOST_FOR_SPRINGS)
      throw new RangeError(
        `By springs at most ${MOST_FOR_SPRINGS} nodes that hang together can be arranged.`,
      );
    this.rows = withoutSelfLoops(neighbourRows(graph));
    const chance = new Random(seed);
    const side = LENGTH * Math.sqrt(n);
    this.x = Float64Array.from({ length: n }, () => chance.real() * side);
    this.y = Float64Array.from({ length: n }, () => chance.real() * side);
  }

  get atRest(): boolean {
    return this.iterations >= ROUNDS;
  }

  iterate(): void {
    const { x, y } = this;
    const { nodeCount: n, offset, neighbour } = this.rows;
    const forceX = new Float64Array(n);
    const forceY = new Float64Array(n);
    for (let a = 0; a < n; a++)
      for (let b = a + 1; b < n; b++) {
        const dx = x[a] - x[b];
        const dy = y[a] - y[b];
        const push = (LENGTH * LENGTH) / (dx * dx + dy * dy + 1e-6);
        forceX[a] += dx * push;
        forceY[a] += dy * push;
        forceX[b] -= dx * push;
        forceY[b] -= dy * push;
      }
    for (let a = 0; a < n; a++)
      for (let i = offset[a]; i < offset[a + 1]; i++) {
        const dx = x[neighbour[i]] - x[a];
        const dy = y[neighbour[i]] - y[a];
        const pull = Math.sqrt(dx * dx + dy * dy) / LENGTH;
        forceX[a] += dx * pull;
        forceY[a] += dy * pull;
      }
    const heat = 0.1 * LENGTH * Math.sqrt(n) * (1 - this.iterations / ROUNDS);
    for (let v = 0; v < n; v++) {
      const size = Math.sqrt(forceX[v] ** 2 + forceY[v] ** 2) + 1e-9;
      const move = Math.min(size, heat) / size;
      x[v] += forceX[v] * move;
      y[v] += forceY[v] * move;
    }
    this.iterations++;
  }
}
