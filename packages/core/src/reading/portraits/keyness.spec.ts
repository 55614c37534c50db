import fc from 'fast-check';
import { logLikelihood, timesAsOften, type Beside } from './keyness';

const beside = (here: number, ofHere: number, elsewhere: number, ofElsewhere: number): Beside => ({
  here,
  ofHere,
  elsewhere,
  ofElsewhere,
});

describe('logLikelihood', () => {
  // Rayson & Garside 2000, worked out by their formula.
  it.each([
    [20, 1000, 5, 1000, 9.637],
    [120, 40_000, 80, 60_000, 32.437],
    [10, 1000, 10, 1000, 0],
    [0, 1000, 0, 1000, 0],
  ])('of %d in %d beside %d in %d is %d', (a, m, b, n, value) => {
    expect(logLikelihood(beside(a, m, b, n))).toBeCloseTo(value, 3);
  });

  it('is near chi-squared where counts are large and shares small', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3000, max: 4000 }), fc.integer({ min: 3000, max: 4000 }), (a, b) => {
        const [m, n] = [1e7, 1e7];
        const expected = (a + b) / 2;
        const chi = (2 * (a - expected) ** 2) / expected;
        const found = logLikelihood(beside(a, m, b, n));
        expect(Math.abs(found - chi)).toBeLessThanOrEqual(0.02 * chi + 1e-6);
      }),
    );
  });

  it('is near the whole likelihood ratio where shares are small', () => {
    // Dunning 1993: by the logarithms of binomials, here worked out.
    const logL = (p: number, k: number, n: number): number => k * Math.log(p) + (n - k) * Math.log1p(-p);
    const [a, b, n] = [20, 5, 1e6];
    const p = (a + b) / (2 * n);
    const whole = 2 * (logL(a / n, a, n) + logL(b / n, b, n) - logL(p, a, n) - logL(p, b, n));
    expect(logLikelihood(beside(a, n, b, n))).toBeCloseTo(whole, 3);
  });

  it('is the same from either side', () => {
    fc.assert(
      fc.property(fc.nat(50), fc.nat(50), fc.integer({ min: 50, max: 99 }), (a, b, m) => {
        const [one, other] = [logLikelihood(beside(a, m, b, 200)), logLikelihood(beside(b, 200, a, m))];
        expect(one).toBeCloseTo(other, 9);
        expect(one).toBeGreaterThanOrEqual(0);
      }),
    );
  });
});

describe('timesAsOften', () => {
  it('is one share over the other', () => {
    expect(timesAsOften(beside(20, 100, 10, 200))).toBe(4);
    expect(timesAsOften(beside(20, 100, 0, 200))).toBe(Infinity);
    expect(timesAsOften(beside(0, 100, 0, 200))).toBeNaN();
  });
});
