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
