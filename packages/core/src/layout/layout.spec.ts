import { createHash } from 'node:crypto';
import { LayoutSettings } from '@pebble/contract';
import { makeGraph } from '../graph/graph';
import { planted, randomTwin } from '../testing/known';
import { arrange } from './arrange';
import { removeOverlaps } from './common/overlaps';
import { packRound } from './common/pack';
import { Repulsion } from './attraction/repulsion';
import { Random } from '../random';

const settings = LayoutSettings.parse({});
const radii = (n: number): Float32Array => Float32Array.from({ length: n }, (_, v) => 3 + (v % 5));

describe('Repulsion', () => {
  /** The mean error beside the sum over all pairs, as a share of the mean force. */
  function errorOf(theta: number | undefined, n: number, at: (chance: Random) => number): number {
    const chance = new Random(1);
    const draw = (one: () => number): Float64Array => Float64Array.from({ length: n }, one);
    const [x, y] = [draw(() => at(chance)), draw(() => at(chance))];
    const mass = draw(() => 1 + 5 * chance.real());
    const [fx, fy] = [new Float64Array(n), new Float64Array(n)];
    new Repulsion(n, theta).addTo(x, y, mass, 2, fx, fy);
    let error = 0;
    let size = 0;
    for (let i = 0; i < n; i++) {
      let [ex, ey] = [0, 0];
      for (let j = 0; j < n; j++) {
        if (i === j) continue;
        const [dx, dy] = [x[i] - x[j], y[i] - y[j]];
        const f = (2 * mass[i] * mass[j]) / Math.max(1e-4, dx * dx + dy * dy);
        ex += dx * f;
        ey += dy * f;
      }
      error += Math.hypot(fx[i] - ex, fy[i] - ey);
      size += Math.hypot(ex, ey);
    }
    return error / size;
  }
  const even = (chance: Random): number => chance.real() * 1000;
  /** Most near the middle, some far out. */
  const heaped = (chance: Random): number => (chance.real() - 0.5) ** 3 * 1000;

  it('comes within two per cent of the sum over all pairs', () => {
    expect(errorOf(undefined, 1500, even)).toBeLessThan(0.02);
    expect(errorOf(undefined, 1500, heaped)).toBeLessThan(0.02);
  });

  it('comes the nearer to it the farther off a cell must be', () => {
    const errors = [1.5, 1, 0.6, 0.3].map((theta) => errorOf(theta, 800, even));
    expect(errors).toEqual([...errors].sort((a, b) => b - a));
    expect(errors[2]).toBeLessThan(0.002);
    expect(errors[3]).toBeLessThan(0.0002);
  });

  it('is the sum over all pairs where points are few', () => {
    expect(errorOf(undefined, 10, even)).toBeLessThan(1e-12);
  });

  it('stands many points in one place', () => {
    const same = new Float64Array(100).fill(5);
    const [fx, fy] = [new Float64Array(100), new Float64Array(100)];
    new Repulsion(100).addTo(same, same, new Float64Array(100).fill(1), 1, fx, fy);
    expect([...fx, ...fy].every(Number.isFinite)).toBe(true);
  });
});

describe('arrange', () => {
  it('gives the same positions to the last bit for the same seed', () => {
    const { graph } = randomTwin(3, 120, 300);
    const once = arrange(graph, radii(120), settings);
    const again = arrange(graph, radii(120), settings);
    expect(again.x).toEqual(once.x);
    expect(again.y).toEqual(once.y);
    expect(arrange(graph, radii(120), { ...settings, seed: 2 }).x).not.toEqual(once.x);
  });

  it('gives the positions that it gave before; the browser test holds the same sum', () => {
    const { graph } = randomTwin(3, 120, 300);
    const { x, y } = arrange(graph, radii(120), settings);
    const sum = createHash('sha256')
      .update(new Uint8Array(x.buffer))
      .update(new Uint8Array(y.buffer))
      .digest('hex');
    expect(sum).toBe(LAYOUT_SUM);
  });

  it('leaves no overlaps', () => {
    const { graph } = planted(1, 4, 40, 0.25, 0.01);
    const size = radii(160);
    const { x, y, overlaps } = arrange(graph, size, settings);
    expect(overlaps).toBe(0);
    for (let a = 0; a < 160; a++) {
      for (let b = 0; b < a; b++)
        expect(Math.hypot(x[a] - x[b], y[a] - y[b])).toBeGreaterThan(size[a] + size[b]);
    }
  });

  it('sets planted groups apart: nodes of a group stand nearer to each other than to others', () => {
    const { graph, group } = planted(1, 4, 40, 0.3, 0.01);
    const { x, y } = arrange(graph, radii(160), settings);
    const mean = (same: boolean): number => {
      let [sum, count] = [0, 0];
      for (let a = 0; a < 160; a++) {
        for (let b = 0; b < a; b++) {
          if ((group[a] === group[b]) !== same) continue;
          sum += Math.hypot(x[a] - x[b], y[a] - y[b]);
          count++;
        }
      }
      return sum / count;
    };
    expect(mean(false) / mean(true)).toBeGreaterThan(1.8);
  });

  it('sets isolates in rows below everything else', () => {
    const graph = makeGraph(8, [0, 1, 2], [1, 2, 3]);
    const { x, y } = arrange(graph, radii(8), settings);
    expect(Math.min(...y.slice(4))).toBeGreaterThan(Math.max(...y.slice(0, 4)));
    expect(new Set(x.slice(4)).size + new Set(y.slice(4)).size).toBeGreaterThan(4);
  });

  it('does nothing wrong with no nodes, one node, or only isolates', () => {
    for (const n of [0, 1, 5]) {
      const { x, y } = arrange(makeGraph(n, [], []), radii(n), settings);
      expect([...x, ...y].every(Number.isFinite)).toBe(true);
    }
  });
});

describe('removeOverlaps', () => {
  it('parts discs that lie on each other', () => {
    const [x, y] = [new Float64Array(30), new Float64Array(30)];
    expect(removeOverlaps(x, y, radii(30), 1, 400)).toBe(0);
  });
});

describe('packRound', () => {
  it('places discs without touching what is there or each other', () => {
    const taken = [{ x: 0, y: 0, radius: 50 }];
    const radius = [20, 20, 12, 12, 5, 5, 5];
    const placed = packRound(taken, radius, 4);
    const all = [...taken, ...placed];
    all.forEach((a, i) =>
      all
        .slice(0, i)
        .forEach((b) => expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(a.radius + b.radius)),
    );
  });
});

/** Held by the browser test too: SHA-256 of the positions of this layout. */
const LAYOUT_SUM = 'af2107a8db5ebf21afc422607f2b38637ad8a656d0b94c7d921ead26ce08d4ab';

it('tells how far the beginning of a large network is, never backwards, and can be stopped in it', () => {
  const { graph } = planted(3, 20, 100, 0.05, 0.001);
  const radius = radii(graph.nodeCount);
  const shares: number[] = [];
  arrange(graph, radius, { ...settings, iterations: 5 }, (share) => void shares.push(share));
  expect(shares.filter((share) => share <= 0.2).length).toBeGreaterThan(20);
  expect(shares.every((share, i) => i === 0 || share >= shares[i - 1] - 1e-12)).toBe(true);
  expect(shares.at(-1)).toBeLessThanOrEqual(1);
  const stop = (): void => {
    throw new Error('stopped');
  };
  expect(() => arrange(graph, radius, settings, stop)).toThrow('stopped');
});
