import fc from 'fast-check';
import { cohenKappa, krippendorffAlpha, resampledInterval, type CodedUnit } from './agreement';

/** Units from the lines of coders; a dot is a gap. */
const units = (...coders: readonly string[]): CodedUnit[] => {
  const lines = coders.map((line) => line.split(' '));
  return lines[0].map((_, u) => lines.map((line) => (line[u] === '.' ? null : Number(line[u]))));
};

/** Two coders of so many units: both yes, the first alone, the second alone, none. */
const fourfold = (both: number, a: number, b: number, none: number): CodedUnit[] => [
  ...Array.from({ length: both }, () => [1, 1]),
  ...Array.from({ length: a }, () => [1, 0]),
  ...Array.from({ length: b }, () => [0, 1]),
  ...Array.from({ length: none }, () => [0, 0]),
];

describe('Krippendorff’s alpha', () => {
  it('has the published value: four coders, twelve units, with gaps', () => {
    // Krippendorff 2011, Computing Krippendorff's alpha-reliability, nominal data.
    const found = krippendorffAlpha(
      units(
        '1 2 3 3 2 1 4 1 2 . . .',
        '1 2 3 3 2 2 4 1 2 5 . 3',
        '. 3 3 3 2 3 4 2 2 5 1 .',
        '1 2 3 3 2 4 4 1 2 5 1 .',
      ),
    );
    expect(found).toBeCloseTo(0.743, 3);
  });

  it('has the published value of two coders and two values', () => {
    // The same, binary data of ten units: 0.095.
    expect(krippendorffAlpha(units('0 1 0 0 0 0 0 0 1 0', '1 1 1 0 0 1 0 0 0 0'))).toBeCloseTo(0.095, 3);
  });

  it('is 1 where all agree, and undefined where nothing can differ', () => {
    expect(krippendorffAlpha(units('0 1 0', '0 1 0'))).toBe(1);
    expect(krippendorffAlpha(units('1 1', '1 1'))).toBeNaN();
    expect(krippendorffAlpha(units('1 .', '. 1'))).toBeNaN();
  });
});

describe('Cohen’s kappa', () => {
  it.each([
    // Handbook values of fourfold tables, from memory.
    [20, 5, 10, 15, 0.4],
    [45, 15, 25, 15, 0.1304],
    [25, 35, 5, 35, 0.2593],
  ])('of %d, %d, %d, %d is %d', (both, a, b, none, value) => {
    expect(cohenKappa(fourfold(both, a, b, none))).toBeCloseTo(value, 4);
  });

  it('does not see what only one of them saw, and nothing without chance of a difference', () => {
    expect(cohenKappa([...fourfold(20, 5, 10, 15), [1, null], [null, 0]])).toBeCloseTo(0.4, 4);
    expect(cohenKappa(fourfold(0, 0, 0, 9))).toBeNaN();
    expect(cohenKappa([])).toBeNaN();
  });

  it('is near alpha for two coders and many units', () => {
    fc.assert(
      fc.property(fc.integer({ min: 200, max: 900 }), fc.integer({ min: 1, max: 60 }), (n, differ) => {
        const coded = fourfold(n, differ, differ, n);
        expect(Math.abs(cohenKappa(coded) - krippendorffAlpha(coded))).toBeLessThan(0.01);
      }),
    );
  });
});

describe('intervals by resampling', () => {
  const coded = fourfold(20, 5, 10, 15);
  it('hold the value, are the same for a seed, and are narrower for more units', () => {
    const [low, high] = resampledInterval(coded, cohenKappa, 7)!;
    expect(low).toBeLessThan(0.4);
    expect(high).toBeGreaterThan(0.4);
    expect(resampledInterval(coded, cohenKappa, 7)).toEqual([low, high]);
    // The standard error of this table is 0.13: about 0.15 to 0.65.
    expect(low).toBeCloseTo(0.15, 1);
    expect(high).toBeCloseTo(0.65, 1);
    const many = Array.from({ length: 10 }, () => coded).flat();
    const [lower, higher] = resampledInterval(many, cohenKappa, 7)!;
    expect(higher - lower).toBeLessThan((high - low) / 2);
  });

  it('are none where nothing is defined', () => {
    expect(resampledInterval(fourfold(0, 0, 0, 4), cohenKappa, 1)).toBeNull();
  });
});
