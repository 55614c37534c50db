import fc from 'fast-check';
import { areAlike, measured, type Chords } from './compatibility';
import { matesOf, MOST_MATES } from './compatibleEdges';

const place = fc.integer({ min: 0, max: 100 });
const line = fc.tuple(place, place, place, place).filter(([ax, ay, bx, by]) => ax !== bx || ay !== by);
const chordsOf = (lines: readonly (readonly number[])[]): Chords => {
  const part = (i: number): Float64Array => Float64Array.from(lines, (one) => one[i]);
  return { ax: part(0), ay: part(1), bx: part(2), by: part(3) };
};
function end<T>(run: Generator<number, T>): T {
  for (;;) {
    const step = run.next();
    if (step.done) return step.value;
  }
}

describe('mates of lines', () => {
  it('are all lines that are alike, where these are not too many', () => {
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 30 }), (lines) => {
        const chords = chordsOf(lines);
        const all = measured(chords);
        // The shorter first, so that both ways are rounded alike.
        const alikeWhicheverFirst = (p: number, q: number): boolean =>
          all.length[p] < all.length[q] || (all.length[p] === all.length[q] && p < q)
            ? areAlike(all, p, q)
            : areAlike(all, q, p);
        const { of, count, alike } = end(matesOf(chords));
        lines.forEach((_, p) => {
          const own = [...of.subarray(p * MOST_MATES, p * MOST_MATES + count[p])].sort((a, b) => a - b);
          const expected = lines.flatMap((__, q) => (q !== p && alikeWhicheverFirst(p, q) ? [q] : []));
          expect(own).toEqual(expected);
          expect(alike[p]).toBe(expected.length);
        });
      }),
    );
  });

  it('are a sample by a seed, the same each time', () => {
    const lines = Array.from({ length: 100 }, (_, i) => [0, i / 10, 100, i / 10]);
    const by = (seed: number): number[] => [...end(matesOf(chordsOf(lines), seed)).of];
    expect(by(1)).toEqual(by(1));
    expect(by(2)).not.toEqual(by(1));
  });
});
