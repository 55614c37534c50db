import fc from 'fast-check';
import { combinations, isWithin, membership, setsOf } from './combinations';

const some = fc.array(fc.uniqueArray(fc.nat(60), { maxLength: 40 }), { minLength: 1, maxLength: 20 });

describe('combinations of sets', () => {
  it('are exact: members, sizes and overlaps are those of the sets', () => {
    fc.assert(
      fc.property(some, (sets) => {
        const found = combinations(membership(sets), sets.length, 1e6);
        expect(found.sizes).toEqual(sets.map((set) => set.length));
        expect(found.members).toBe(new Set(sets.flat()).size);
        for (const { sets: own, members } of found.combinations) {
          const within = [...new Set(sets.flat())].filter((one) =>
            sets.every((set, s) => set.includes(one) === own.includes(s)),
          );
          expect(members).toBe(within.length);
        }
        for (const { a, b, both, jaccard } of found.pairs) {
          const shared = sets[a].filter((one) => sets[b].includes(one)).length;
          expect(both).toBe(shared);
          const either = new Set([...sets[a], ...sets[b]]).size;
          expect(jaccard).toBeCloseTo(either === 0 ? 0 : shared / either, 12);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('hold inclusion and exclusion: the sizes of all, less pairs, plus triples', () => {
    const sets = [
      [0, 1, 2, 3, 4, 5],
      [3, 4, 5, 6, 7],
      [5, 7, 8, 9],
    ];
    const { sizes, pairs, combinations: all, members } = combinations(membership(sets), 3, 10);
    const [single, double] = [sizes.reduce((a, b) => a + b), pairs.reduce((sum, { both }) => sum + both, 0)];
    const triple = all.find((one) => one.sets.length === 3)!.members;
    expect(single - double + triple).toBe(members);
    expect(members).toBe(10);
  });

  it('beyond the largest are summed up', () => {
    const { combinations: told, further } = combinations(
      membership([
        [0, 1],
        [1, 2, 3],
        [3, 4],
      ]),
      3,
      2,
    );
    expect(told).toHaveLength(2);
    expect(further).toEqual({ combinations: 3, members: 3 });
  });

  it('know 30 sets, and refuse more than 32', () => {
    const sets = Array.from({ length: 30 }, (_, s) => [s, 30]);
    const masks = membership(sets);
    expect(setsOf(masks[30])).toHaveLength(30);
    expect(setsOf(masks[29])).toEqual([29]);
    expect(isWithin(masks[30], [0, 29], [])).toBe(true);
    expect(isWithin(masks[29], [29], [0])).toBe(true);
    expect(isWithin(masks[30], [29], [0])).toBe(false);
    expect(() => membership(Array.from({ length: 33 }, () => [1]))).toThrow('At most 32');
  });
});
