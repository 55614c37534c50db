import { LayoutSettings } from '@pebble/contract';
import { makeGraph } from '../../graph/graph';
import { arrange } from '../arrange';
import { NO_DATA } from '../common/placed';

const settings = (part: object): LayoutSettings =>
  LayoutSettings.parse({ method: 'round-one', separate: false, ...part });

describe('an arrangement round one node', () => {
  // 0 is the middle: 1 and 2 lead to it, it leads to 3, 4 both ways; 5 is tied to 3, 6 to 1, 7 to 6.
  const graph = makeGraph(9, [1, 2, 0, 0, 4, 5, 6, 7], [0, 0, 3, 4, 0, 3, 1, 6], [5, 1, 1, 1, 1, 1, 1, 1]);
  const radius = new Float32Array(9).fill(4);
  const place = (part: object = {}, directed = true) =>
    arrange(graph, radius, settings(part), undefined, { ...NO_DATA, directed });

  it('has who leads to it on the left, whom it leads to on the right, both above', () => {
    const { x, y } = place();
    expect([x[0], y[0]]).toEqual([0, 0]);
    expect(x[1]).toBeLessThan(-80);
    expect(x[2]).toBeLessThan(-80);
    expect(x[3]).toBeGreaterThan(80);
    expect(y[4]).toBeLessThan(-80);
  });

  it('sets the rest farther out, in the direction of those they are tied to', () => {
    const { x, y } = place();
    const far = (v: number): number => Math.hypot(x[v], y[v]);
    expect(far(5)).toBeGreaterThan(far(3) + 40);
    expect(far(7)).toBeGreaterThan(far(6) + 40);
    expect(x[5]).toBeGreaterThan(100);
    expect(x[6]).toBeLessThan(-100);
  });

  it('takes the node that is asked for', () => {
    const { x, y } = place({ centre: 3 });
    expect([x[3], y[3]]).toEqual([0, 0]);
    expect(x[0]).toBeLessThan(-80);
  });

  it('goes all round where ties have no direction', () => {
    const { x, y } = place({}, false);
    const around = [1, 2, 3, 4];
    expect(around.some((v) => y[v] > 50)).toBe(true);
    expect(around.some((v) => x[v] > 50)).toBe(true);
    for (const v of around) expect(Math.hypot(x[v], y[v])).toBeCloseTo(130, 3);
  });

  it('has room for hundreds on one side', () => {
    const n = 400;
    const ends = Array.from({ length: n }, (_, i) => i + 1);
    const many = makeGraph(n + 1, ends, new Array<number>(n).fill(0));
    const { x, y } = arrange(many, new Float32Array(n + 1).fill(5), settings({}), undefined, NO_DATA);
    for (const v of ends) expect(x[v]).toBeLessThan(0);
    let nearest = Infinity;
    for (let a = 1; a <= n; a++)
      for (let b = a + 1; b <= n; b++) nearest = Math.min(nearest, Math.hypot(x[a] - x[b], y[a] - y[b]));
    expect(nearest).toBeGreaterThan(10);
  });
});

describe('given places', () => {
  const graph = makeGraph(4, [0, 1], [1, 2]);
  const at = (first: number[], second: number[], part: object = {}) =>
    arrange(
      graph,
      new Float32Array(4).fill(30),
      settings({ method: 'given', separate: true, ...part }),
      undefined,
      {
        ...NO_DATA,
        first: Float64Array.from(first),
        second: Float64Array.from(second),
      },
    );

  it('come back to just where they were, also where nodes overlap', () => {
    const { x, y } = at([10, 400, 15, -90], [7, 8, 300, 0]);
    expect([...x]).toEqual([10, 400, 15, -90]);
    expect([...y]).toEqual([7, 8, 300, 0]);
  });

  it('of other units are scaled alike both ways', () => {
    const { x, y } = at([0, 1, 0, 0.5], [0, 0, 0.25, 0.25]);
    expect(x[1] - x[0]).toBeCloseTo(980, 3);
    expect(y[2] - y[0]).toBeCloseTo(245, 3);
  });

  it('that are missing are in a row below', () => {
    const { x, y } = at([0, 500, NaN, 100], [0, 300, 20, NaN]);
    expect(y[2]).toBeGreaterThan(300);
    expect(y[3]).toBe(y[2]);
    expect(x[3]).not.toBe(x[2]);
    const none = at([NaN, NaN, NaN, NaN], [1, 2, 3, 4]);
    for (const v of none.x) expect(Number.isFinite(v)).toBe(true);
  });
});
