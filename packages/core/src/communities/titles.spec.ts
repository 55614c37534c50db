import fc from 'fast-check';
import { likelihoodRatio, typicalWords } from './titles';

const group = (name: string, messages: number, words: Record<string, number>) => ({
  group: name,
  messages,
  words: new Map(Object.entries(words)),
});

describe('likelihoodRatio', () => {
  it('is the sum of Dunning (1993), here worked out by its logarithms of binomials', () => {
    const logL = (p: number, k: number, n: number): number => k * Math.log(p) + (n - k) * Math.log(1 - p);
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 30 }),
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 31, max: 90 }),
        (a, b, m) => {
          const n = 200;
          fc.pre(a / m > b / n);
          const p = (a + b) / (m + n);
          const expected = 2 * (logL(a / m, a, m) + logL(b / n, b, n) - logL(p, a, m) - logL(p, b, n));
          expect(likelihoodRatio(a, m, b, n)).toBeCloseTo(expected, 8);
        },
      ),
    );
  });

  it('is nothing for a word that is not more frequent here', () => {
    expect(likelihoodRatio(5, 100, 50, 100)).toBe(0);
    expect(likelihoodRatio(5, 100, 5, 100)).toBe(0);
    expect(likelihoodRatio(0, 0, 5, 100)).toBe(0);
  });
});

describe('typicalWords', () => {
  it('takes what is more frequent in a group than in the others, not what is frequent everywhere', () => {
    const titles = typicalWords([
      group('1', 200, { lamps: 150, harbour: 80, boat: 40, rope: 30 }),
      group('2', 200, { lamps: 150, stars: 90 }),
    ]);
    expect([...titles]).toEqual([
      ['2', ['stars']],
      ['1', ['harbour', 'boat']],
    ]);
  });

  it('leaves a group out of which nothing is typical, and rare words', () => {
    expect(typicalWords([group('1', 50, { tea: 2 }), group('2', 50, {})]).size).toBe(0);
  });

  it('gives a word to one group only', () => {
    const titles = typicalWords([
      group('1', 100, { quay: 90 }),
      group('2', 100, { quay: 60 }),
      group('3', 400, { rain: 100 }),
    ]);
    expect(titles.get('1')).toEqual(['quay']);
    expect(titles.has('2')).toBe(false);
  });
});
