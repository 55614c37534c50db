import fc from 'fast-check';
import { adjustedRand, crossing, mutualInformation } from './agreement';

describe('adjustedRand', () => {
  it('is 1 for the same grouping under other names, and about 0 for independent ones', () => {
    expect(adjustedRand([0, 0, 1, 1], [5, 5, 2, 2])).toBe(1);
    // Hubert & Arabie (1985): the index of a grouping against one that crosses it is below 0.
    expect(adjustedRand([0, 0, 1, 1], [0, 1, 0, 1])).toBeCloseTo(-0.5, 10);
  });

  it('refuses groupings of different length', () => {
    expect(() => adjustedRand([1], [1, 2])).toThrow('1 and 2');
  });
});

describe('mutualInformation (Danon et al. 2005)', () => {
  it('is 1 for the same grouping, 0 for independent ones', () => {
    expect(mutualInformation([0, 0, 1, 1], [5, 5, 2, 2])).toBeCloseTo(1, 12);
    expect(mutualInformation([0, 0, 1, 1], [0, 1, 0, 1])).toBeCloseTo(0, 12);
    expect(mutualInformation([1, 1], [2, 2])).toBe(1);
  });

  it('worked by hand: three of four items agree', () => {
    // Cells 2, 1, 0, 1: I = 1/2 ln(4/3) + 1/4 ln(2/3) + 1/4 ln 2; H = ln 2, and -(3/4 ln 3/4 + 1/4 ln 1/4)... of 2 and 2, and 3 and 1.
    const shared =
      0.5 * Math.log((2 * 4) / (2 * 3)) + 0.25 * Math.log(4 / (2 * 3)) + 0.25 * Math.log(4 / (2 * 1));
    const rows = Math.log(2);
    const columns = -(0.25 * Math.log(0.25) + 0.75 * Math.log(0.75));
    expect(mutualInformation([0, 0, 1, 1], [0, 0, 0, 1])).toBeCloseTo((2 * shared) / (rows + columns), 12);
  });

  it('does not depend on which comes first, and stays between 0 and 1', () => {
    const grouping = fc.array(fc.tuple(fc.nat(4), fc.nat(4)), { minLength: 1, maxLength: 40 });
    fc.assert(
      fc.property(grouping, (items) => {
        const [a, b] = [items.map(([x]) => x), items.map(([, y]) => y)];
        const value = mutualInformation(a, b);
        expect(value).toBeCloseTo(mutualInformation(b, a), 10);
        expect(value).toBeGreaterThan(-1e-9);
        expect(value).toBeLessThanOrEqual(1);
        expect(adjustedRand(a, b)).toBeCloseTo(adjustedRand(b, a), 10);
      }),
    );
  });
});

describe('crossing', () => {
  it('counts the items of each pair of groups', () => {
    const found = crossing([7, 7, 9], [1, 2, 2]);
    expect([found.rows, found.columns, [...found.cells]]).toEqual([
      [7, 9],
      [1, 2],
      [1, 1, 0, 1],
    ]);
    expect([[...found.rowSums], [...found.columnSums]]).toEqual([
      [2, 1],
      [1, 2],
    ]);
  });
});
