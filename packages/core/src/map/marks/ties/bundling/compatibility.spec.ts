import fc from 'fast-check';
import {
  ALIKE,
  areAlike,
  compatibility,
  measured,
  sameAngle,
  samePlace,
  sameScale,
  sameView,
  type MeasuredChords,
} from './compatibility';

type Line = readonly [number, number, number, number];
const chords = (...lines: readonly Line[]): MeasuredChords => {
  const part = (i: number): Float64Array => Float64Array.from(lines, (line) => line[i]);
  return measured({ ax: part(0), ay: part(1), bx: part(2), by: part(3) });
};
const coordinate = fc.integer({ min: -100, max: 100 });
const line = fc
  .tuple(coordinate, coordinate, coordinate, coordinate)
  .filter(([ax, ay, bx, by]) => ax !== bx || ay !== by);

// The formulas of Holten & van Wijk (2009), Computer Graphics Forum 28, worked out by hand for lines of simple lengths.
describe('how well two lines can be drawn together', () => {
  it('is whole for the same line, whichever end is called the first', () => {
    const same = chords([0, 0, 10, 0], [10, 0, 0, 0]);
    expect(compatibility(same, 0, 1)).toBe(1);
  });

  it('by angle is the cosine', () => {
    expect(sameAngle(chords([0, 0, 10, 0], [0, 0, 0, 10]), 0, 1)).toBe(0);
    expect(sameAngle(chords([0, 0, 10, 0], [0, 0, 10, 10]), 0, 1)).toBeCloseTo(Math.SQRT1_2, 12);
  });

  it('by scale compares both lengths with their mean', () => {
    // Lengths 10 and 30, mean 20: 2 / (20 / 10 + 30 / 20).
    expect(sameScale(chords([0, 0, 10, 0], [0, 5, 30, 5]), 0, 1)).toBeCloseTo(2 / 3.5, 12);
  });

  it('by place compares the distance of the middles with the mean length', () => {
    expect(samePlace(chords([0, 0, 10, 0], [0, 10, 10, 10]), 0, 1)).toBeCloseTo(0.5, 12);
  });

  it('by view is nothing where neither lies beside the other, and half where half of it does', () => {
    expect(sameView(chords([0, 0, 10, 0], [20, 3, 30, 3]), 0, 1)).toBe(0);
    expect(sameView(chords([0, 0, 10, 0], [0, 3, 10, 3]), 0, 1)).toBe(1);
    expect(sameView(chords([0, 0, 10, 0], [2.5, 3, 12.5, 3]), 0, 1)).toBeCloseTo(0.5, 12);
  });

  it('lies between 0 and 1, and is the same both ways', () => {
    fc.assert(
      fc.property(line, line, (a, b) => {
        const two = chords(a, b);
        const value = compatibility(two, 0, 1);
        expect(value).toBeGreaterThanOrEqual(0);
        expect(value).toBeLessThanOrEqual(1 + 1e-12);
        expect(compatibility(two, 1, 0)).toBeCloseTo(value, 12);
      }),
    );
  });

  it('is asked in short with the same answer', () => {
    fc.assert(
      fc.property(line, line, (a, b) => {
        const two = chords(a, b);
        const value = compatibility(two, 0, 1);
        if (Math.abs(value - ALIKE) > 1e-9) expect(areAlike(two, 0, 1)).toBe(value >= ALIKE);
      }),
      { numRuns: 1000 },
    );
  });
});
