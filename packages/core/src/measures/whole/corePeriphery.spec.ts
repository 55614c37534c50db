import { neighbourRows } from '../../graph/csr';
import { makeGraph } from '../../graph/graph';
import { Random } from '../../random';
import { corePeriphery } from './corePeriphery';

/** Pearson correlation of all pairs with the ideal pattern of a core, as Borgatti & Everett (1999) define it. */
function fitOf(n: number, ties: readonly (readonly [number, number])[], core: ReadonlySet<number>): number {
  const tied = new Set(ties.map(([a, b]) => Math.min(a, b) * n + Math.max(a, b)));
  const x: number[] = [];
  const y: number[] = [];
  for (let a = 0; a < n; a++)
    for (let b = a + 1; b < n; b++) {
      x.push(tied.has(a * n + b) ? 1 : 0);
      y.push(core.has(a) || core.has(b) ? 1 : 0);
    }
  const mean = (values: number[]): number => values.reduce((s, v) => s + v, 0) / values.length;
  const [mx, my] = [mean(x), mean(y)];
  const cov = x.reduce((s, v, i) => s + (v - mx) * (y[i] - my), 0);
  const spread = (values: number[], m: number): number => values.reduce((s, v) => s + (v - m) ** 2, 0);
  return cov / Math.sqrt(spread(x, mx) * spread(y, my));
}

describe('core and periphery (Borgatti & Everett 1999)', () => {
  it('fit wholly in a star, and in a core that is tied with all', () => {
    const star = neighbourRows(makeGraph(5, [0, 0, 0, 0], [1, 2, 3, 4]));
    expect(corePeriphery(star)).toEqual({ fit: 1, core: 1 });
    const two = neighbourRows(makeGraph(5, [0, 0, 0, 0, 1, 1, 1], [1, 2, 3, 4, 2, 3, 4]));
    expect(corePeriphery(two)).toEqual({ fit: 1, core: 2 });
  });

  it('is the correlation of the best of all cores in most random graphs, and never far below', () => {
    const chance = new Random(3);
    let reached = 0;
    for (let round = 0; round < 30; round++) {
      const n = 7;
      const ties: [number, number][] = [];
      for (let a = 0; a < n; a++) for (let b = a + 1; b < n; b++) if (chance.chance(0.4)) ties.push([a, b]);
      const rows = neighbourRows(
        makeGraph(
          n,
          ties.map(([a]) => a),
          ties.map(([, b]) => b),
        ),
      );
      let best = -Infinity;
      for (let set = 1; set < 1 << n; set++) {
        const core = new Set(Array.from({ length: n }, (_, v) => v).filter((v) => (set >> v) & 1));
        const fit = fitOf(n, ties, core);
        if (fit > best) best = fit;
      }
      const found = corePeriphery(rows);
      if (found.fit > best - 1e-9) reached++;
      expect(found.fit).toBeGreaterThan(best - 0.2);
      expect(found.fit).toBeLessThanOrEqual(best + 1e-12);
    }
    // It is looked for step by step, and may miss the best one.
    expect(reached).toBeGreaterThanOrEqual(25);
  });

  it('says nothing of a network without ties, or where all are tied', () => {
    expect(corePeriphery(neighbourRows(makeGraph(4, [], []))).fit).toBeNaN();
    expect(corePeriphery(neighbourRows(makeGraph(3, [0, 0, 1], [1, 2, 2]))).fit).toBeNaN();
    expect(corePeriphery(neighbourRows(makeGraph(0, [], []))).fit).toBeNaN();
  });
});
