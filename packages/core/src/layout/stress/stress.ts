import { neighbourRows, withoutSelfLoops } from '../../graph/csr';
import type { Graph } from '../../graph/graph';
import { Random } from '../../random';
import { allDistances } from './distances';
import type { Running } from '../common/running';

/** Length of one step. */
const STEP = 40;

/** Nodes that a part may have: the distances of all pairs are held. */
const MOST_FOR_STRESS = 3000;

/**
 * Arrangement in which distances on the page are as many steps as in the network: stress with weights of 1 / distance squared is lowered node
 * by node (the localised majorisation of Gansner, Koren & North 2004, Graph Drawing, section 2.3). The graph must hang together; it is taken
 * without direction, weights and self-loops. Time O(nodes squared) a round.
 */
export class Stress implements Running {
  readonly x: Float64Array;
  readonly y: Float64Array;
  iterations = 0;
  atRest = false;
  private readonly distance: Int16Array;
  private readonly order: Uint32Array;

  constructor(graph: Graph, seed: number) {
    const n = graph.nodeCount;
    if (n > MOST_FOR_STRESS)
      throw new RangeError(
        `By distances at most ${MOST_FOR_STRESS} nodes that hang together can be arranged.`,
      );
    this.distance = allDistances(withoutSelfLoops(neighbourRows(graph)));
    const chance = new Random(seed);
    this.x = Float64Array.from({ length: n }, () => chance.real() * STEP * Math.sqrt(n));
    this.y = Float64Array.from({ length: n }, () => chance.real() * STEP * Math.sqrt(n));
    this.order = chance.shuffle(Uint32Array.from({ length: n }, (_, v) => v));
  }

  iterate(): void {
    const { x, y, distance, order } = this;
    const n = x.length;
    let moved = 0;
    for (const v of order) {
      let [sumX, sumY, all] = [0, 0, 0];
      for (let u = 0; u < n; u++) {
        const steps = distance[v * n + u];
        if (steps <= 0) continue;
        const weight = 1 / (steps * steps);
        const dx = x[v] - x[u];
        const dy = y[v] - y[u];
        const apart = Math.sqrt(dx * dx + dy * dy) + 1e-9;
        const pull = (steps * STEP) / apart;
        sumX += weight * (x[u] + dx * pull);
        sumY += weight * (y[u] + dy * pull);
        all += weight;
      }
      if (all === 0) continue;
      const [nextX, nextY] = [sumX / all, sumY / all];
      moved += Math.sqrt((nextX - x[v]) ** 2 + (nextY - y[v]) ** 2);
      x[v] = nextX;
      y[v] = nextY;
    }
    this.iterations++;
    this.atRest = moved < REST * STEP * n;
  }
}

/** At rest when a node moves less than this share of a step, on average. */
const REST = 0.001;

/**
 * Stress of a picture: how far distances on the page are from being proportional to steps, after the best scaling; 0 where they are, 1 where
 * all stand in one place (normalised stress, Gansner et al. 2004). Pairs out of reach of each other do not count; NaN where there are none.
 */
export function normalisedStress(distance: Int16Array, x: ArrayLike<number>, y: ArrayLike<number>): number {
  const n = x.length;
  let [squares, products, all] = [0, 0, 0];
  for (let a = 0; a < n; a++)
    for (let b = a + 1; b < n; b++) {
      const steps = distance[a * n + b];
      if (steps <= 0) continue;
      const apart = Math.sqrt((x[a] - x[b]) ** 2 + (y[a] - y[b]) ** 2) / steps;
      squares += apart * apart;
      products += apart;
      all++;
    }
  if (all === 0) return NaN;
  if (squares === 0) return 1;
  // Of sum (scale x apart / steps - 1) squared the least, over the pairs.
  return 1 - products ** 2 / (squares * all);
}
