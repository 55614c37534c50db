import fc from 'fast-check';
import { rowAt, topsOf } from './row-heights';

describe('rows of different heights', () => {
  it('begin where the ones before end', () => {
    expect([...topsOf([60, 80, 60])]).toEqual([0, 60, 140, 200]);
    expect([...topsOf([])]).toEqual([0]);
  });

  it('are found by where they stand, as by going through all of them', () => {
    const heights = fc.array(fc.integer({ min: 1, max: 90 }), { minLength: 1, maxLength: 60 });
    fc.assert(
      fc.property(heights, fc.integer({ min: -100, max: 6000 }), (all, at) => {
        const tops = topsOf(all);
        let row = 0;
        while (row + 1 < all.length && tops[row + 1] <= at) row++;
        expect(rowAt(tops, at, all.length)).toBe(row);
      }),
    );
  });
});
