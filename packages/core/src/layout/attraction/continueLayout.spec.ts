import { LayoutSettings } from '@pebble/contract';
import { makeGraph } from '../../graph/graph';
import { Random } from '../../random';
import { arrange, arranging } from '../arrange';
import { Attraction } from './attraction';
import { NO_DATA, type LayoutData } from '../common/placed';

/** Groups of ten, each tied within, with a few ties between them. */
function groups(count: number, seed = 3) {
  const chance = new Random(seed);
  const ends: [number[], number[]] = [[], []];
  for (let v = 0; v < 10 * count; v++)
    for (let i = 0; i < 4; i++) {
      ends[0].push(v);
      ends[1].push(i < 3 ? 10 * Math.floor(v / 10) + chance.below(10) : chance.below(10 * count));
    }
  return makeGraph(10 * count, ...ends);
}

const settings = (part: object): LayoutSettings => LayoutSettings.parse(part);

describe('going on from where the nodes are', () => {
  const graph = groups(6);
  const radius = new Float32Array(60).fill(4);
  const rested = arrange(graph, radius, settings({}));
  const from = (x: ArrayLike<number>, y: ArrayLike<number>, held: number[] = []): LayoutData => ({
    ...NO_DATA,
    now: { x, y, held },
  });
  const onward = (data: LayoutData, part: object = {}) =>
    arrange(graph, radius, settings({ begin: 'as it is', ...part }), undefined, data);
  const meanMove = (a: typeof rested): number =>
    a.x.reduce((sum, x, v) => sum + Math.hypot(x - rested.x[v], a.y[v] - rested.y[v]), 0) / a.x.length;
  const spread = Math.max(...rested.x) - Math.min(...rested.x);

  it('hardly moves what has come to rest: the picture stays where and as large as it is', () => {
    expect(meanMove(onward(from(rested.x, rested.y)))).toBeLessThan(0.1 * spread);
    const moved = from(
      rested.x.map((x) => x + 5000),
      rested.y,
    );
    const there = onward(moved);
    expect(Math.min(...there.x)).toBeGreaterThan(4000);
    expect(Math.max(...there.x) - Math.min(...there.x)).toBeLessThan(1.6 * spread);
  });

  it('brings back what was torn out, and leaves held nodes just where they are', () => {
    const x = rested.x.slice();
    const y = rested.y.slice();
    x[5] += 900;
    y[17] += 700;
    const free = onward(from(x, y));
    expect(free.x[5]).toBeLessThan(x[5] - 200);
    const held = onward(from(x, y, [5, 17]));
    expect([held.x[5], held.y[17]]).toEqual([x[5], y[17]]);
    expect(meanMove(held)).toBeGreaterThan(1);
  });

  it('leaves single nodes alone, and gives the same places every time', () => {
    const lone = makeGraph(3, [0], [1]);
    const data = from([0, 50, 400], [0, 0, 300]);
    const once = arrange(lone, new Float32Array(3).fill(3), settings({ begin: 'as it is' }), undefined, data);
    expect([once.x[2], once.y[2]]).toEqual([400, 300]);
    expect(onward(from(rested.x, rested.y))).toEqual(onward(from(rested.x, rested.y)));
  });

  it('begins anew where there is nothing to go on from, or by another arrangement', () => {
    expect(onward(NO_DATA)).toEqual(rested);
    const data = from(rested.x, rested.y);
    const circle = arrange(graph, radius, settings({ method: 'circle' }), undefined, data);
    expect(onward(data, { method: 'circle' })).toEqual(circle);
  });

  it('can be looked at between its rounds', () => {
    const rounds = arranging(
      graph,
      radius,
      settings({ begin: 'as it is', iterations: 3 }),
      from(
        rested.x.map((x) => 2 * x),
        rested.y,
      ),
    );
    const first = rounds.next();
    expect(first.done).toBe(false);
    if (!first.done) expect(first.value.preview().x).toHaveLength(60);
  });
});

describe('the balance of a beginning', () => {
  it('makes the sum of forces times places nothing, whatever the units were', () => {
    const graph = groups(3);
    for (const apart of ['little', 'usual', 'far'] as const) {
      const scales = [0.01, 1, 300].map((unit) => {
        const chance = new Random(9);
        const at = (): Float64Array => Float64Array.from({ length: 30 }, () => unit * (chance.real() - 0.5));
        const layout = new Attraction(graph, {
          seed: 1,
          gravity: 1,
          repulsion: 10,
          apart,
          start: { x: at(), y: at() },
        });
        layout.balance();
        return Math.max(...layout.x) - Math.min(...layout.x);
      });
      expect(scales[1] / scales[0]).toBeCloseTo(1, 6);
      expect(scales[2] / scales[0]).toBeCloseTo(1, 6);
    }
  });

  it('of two tied nodes is where attraction and repulsion hold each other: closed form', () => {
    // Linear attraction d, repulsion 10 · 2 · 2 / d, no gravity: d = √40.
    const start = { x: Float64Array.of(-3, 3), y: Float64Array.of(0, 0) };
    const pair = makeGraph(2, [0], [1]);
    const layout = new Attraction(pair, { seed: 1, gravity: 0, repulsion: 10, apart: 'little', start });
    layout.balance();
    expect(layout.x[1] - layout.x[0]).toBeCloseTo(Math.sqrt(40), 9);
  });
});
