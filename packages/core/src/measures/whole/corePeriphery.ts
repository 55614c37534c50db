import type { Csr } from '../../graph/csr';

export interface CorePeriphery {
  /** Correlation of the ties with the ideal pattern, -1 to 1; NaN where all pairs are tied or none. */
  readonly fit: number;
  /** Nodes of the core that was found to fit best. */
  readonly core: number;
}

/** Rounds in which single nodes change sides; it was at rest after three in all that was tried. */
const MOST_ROUNDS = 20;

/**
 * How well a network is a core and a periphery: in the ideal pattern every pair with a node of the core is tied and no pair within the
 * periphery (Borgatti & Everett 1999, Social Networks 21). The core is looked for among the first by degree, then improved node by node:
 * a good one, which need not be the best. Time O(ties + nodes log nodes).
 * @param rows without direction and self-loops
 */
export function corePeriphery({ nodeCount: n, offset, neighbour }: Csr): CorePeriphery {
  const pairs = (n * (n - 1)) / 2;
  const ties = neighbour.length / 2;
  const fitOf = (core: number, touched: number): number =>
    correlation(touched, pairs - ((n - core) * (n - core - 1)) / 2, ties, pairs);
  const degree = (v: number): number => offset[v + 1] - offset[v];
  const order = Array.from({ length: n }, (_, v) => v).sort((a, b) => degree(b) - degree(a) || a - b);
  const isCore = new Uint8Array(n);
  /** Ties with a node of the core that have v as the only one, or would have. */
  const own = (v: number): number => {
    let count = 0;
    for (let i = offset[v]; i < offset[v + 1]; i++) if (isCore[neighbour[i]] === 0) count++;
    return count;
  };
  /** Cores of the first by degree: the best of all sizes, and some to begin with elsewhere. */
  let best: Core = { fit: NaN, core: 0, touched: 0 };
  const begins: Core[] = [];
  for (let core = 1, touched = 0; core < n; core++) {
    const v = order[core - 1];
    touched += own(v);
    isCore[v] = 1;
    const one = { fit: fitOf(core, touched), core, touched };
    if (isBetter(one, best)) best = one;
    if ((core & (core - 1)) === 0) begins.push(one);
  }
  for (const begin of [best, ...begins]) {
    isCore.fill(0);
    for (const v of order.slice(0, begin.core)) isCore[v] = 1;
    let now = begin;
    for (let round = 0, moved = true; moved && round < MOST_ROUNDS; round++) {
      moved = false;
      for (const v of order) {
        const turn = isCore[v] === 1 ? -1 : 1;
        const [core, touched] = [now.core + turn, now.touched + turn * own(v)];
        const next = { fit: fitOf(core, touched), core, touched };
        if (!isBetter(next, now)) continue;
        isCore[v] = 1 - isCore[v];
        now = next;
        moved = true;
      }
    }
    if (isBetter(now, best)) best = now;
  }
  return { fit: best.fit, core: best.core };
}

interface Core extends CorePeriphery {
  /** Ties with an end in the core. */
  readonly touched: number;
}

function isBetter(a: Core, b: Core): boolean {
  return a.fit > b.fit + 1e-12 || (Number.isNaN(b.fit) && !Number.isNaN(a.fit));
}

/** Correlation of two yes-or-no columns: `both` of `a` and `b` among `all`. */
function correlation(both: number, a: number, b: number, all: number): number {
  const spread = a * (all - a) * b * (all - b);
  return spread > 0 ? (both * all - a * b) / Math.sqrt(spread) : NaN;
}
