import { Random } from './random';

describe('Random', () => {
  it('gives the same numbers for the same seed', () => {
    const draw = (seed: number): number[] => {
      const r = new Random(seed);
      return Array.from({ length: 5 }, () => r.uint32());
    };
    expect(draw(7)).toEqual(draw(7));
    expect(draw(7)).not.toEqual(draw(8));
  });

  it('spreads evenly: each tenth of the range gets about a tenth of the draws', () => {
    const random = new Random(1);
    const bins = new Array<number>(10).fill(0);
    for (let i = 0; i < 100_000; i++) bins[Math.floor(random.real() * 10)]++;
    for (const bin of bins) expect(Math.abs(bin - 10_000)).toBeLessThan(500);
  });

  it('shuffles without losing anything', () => {
    const shuffled = new Random(3).shuffle([1, 2, 3, 4, 5, 6, 7]);
    expect([...shuffled].sort()).toEqual([1, 2, 3, 4, 5, 6, 7]);
  });
});

it('draws a sample of different numbers, each as likely, the same for the same seed', () => {
  expect(new Random(1).sample(10, 4)).toEqual(new Random(1).sample(10, 4));
  expect(new Random(1).sample(3, 10)).toEqual([0, 1, 2]);
  const hits = new Array<number>(10).fill(0);
  for (let seed = 0; seed < 3000; seed++) {
    const drawn = new Random(seed).sample(10, 3);
    expect(new Set(drawn).size).toBe(3);
    for (const i of drawn) hits[i]++;
  }
  // 900 expected for each; five standard deviations are some 125.
  for (const count of hits) expect(Math.abs(count - 900)).toBeLessThan(125);
});
