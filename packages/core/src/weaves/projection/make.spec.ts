import { ProjectionWeave } from '@pebble/contract';
import fc from 'fast-check';
import { isTwoMode, tiesBehind, tiesThrough, weaveOneSort, type TwoSorts } from './make';

/** People 0 to 3 at meetings 4 to 6. */
const meetings: TwoSorts = {
  sort: ['person', 'person', 'person', 'person', 'meeting', 'meeting', 'meeting'],
  source: Uint32Array.of(0, 1, 0, 1, 2, 3),
  target: Uint32Array.of(4, 4, 5, 5, 5, 6),
};
const recipe = (part: object) =>
  ProjectionWeave.parse({ what: 'projection', network: 'n', sort: 'person', ...part });
const ties = (part: object, given = meetings): string[] => {
  const { id, source, target, weight } = weaveOneSort(given, recipe(part));
  return [...source].map((a, e) => `${id[a]} ${id[target[e]]} ${+weight[e].toFixed(3)}`);
};

describe('weaveOneSort', () => {
  it('ties people by the meetings that they share, worked by hand', () => {
    expect(ties({})).toEqual(['0 1 2', '0 2 1', '1 2 1']);
    expect(ties({ atLeast: 2 })).toEqual(['0 1 2']);
    // Newman 2001: a meeting of k people counts 1 / (k - 1): 1 + 1/2 for the pair that shares both.
    expect(ties({ scale: 'newman' })).toEqual(['0 1 1.5', '0 2 0.5', '1 2 0.5']);
    expect(ties({ scale: 'jaccard' })).toEqual(['0 1 1', '0 2 0.5', '1 2 0.5']);
  });

  it('ties meetings by the people that they share', () => {
    expect(ties({ sort: 'meeting' })).toEqual(['4 5 2']);
  });

  it('keeps those without a tie by choice, and says who had too few partners', () => {
    expect([...weaveOneSort(meetings, recipe({})).id]).toEqual([0, 1, 2]);
    expect([...weaveOneSort(meetings, recipe({ isolates: true })).id]).toEqual([0, 1, 2, 3]);
    const busy = weaveOneSort(meetings, recipe({ partnersAtLeast: 2, isolates: true }));
    expect([[...busy.id], [...busy.uses], busy.notes]).toEqual([
      [0, 1],
      [2, 2],
      ['2 people tied to fewer than 2 left out.'],
    ]);
  });

  it('does not go by directions, nor by ties that stand twice', () => {
    const turned = { ...meetings, source: meetings.target, target: meetings.source };
    expect(ties({}, turned)).toEqual(ties({}));
    const twice = {
      ...meetings,
      source: Uint32Array.of(...meetings.source, 2),
      target: Uint32Array.of(...meetings.target, 5),
    };
    expect(ties({}, twice)).toEqual(ties({}));
  });

  it('is the product of the attendance matrix with its transpose, on any of them', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(5), fc.nat(5)), { maxLength: 25 }), (pairs) => {
        const sort = Array.from({ length: 12 }, (_, v) => (v < 6 ? 'person' : 'meeting'));
        const given = {
          sort,
          source: Uint32Array.from(pairs, ([a]) => a),
          target: Uint32Array.from(pairs, ([, b]) => 6 + b),
        };
        const has = new Set(pairs.map(([a, b]) => `${a} ${b}`));
        const expected: string[] = [];
        for (let a = 0; a < 6; a++)
          for (let b = a + 1; b < 6; b++) {
            const shared = [0, 1, 2, 3, 4, 5].filter((m) => has.has(`${a} ${m}`) && has.has(`${b} ${m}`));
            if (shared.length > 0) expected.push(`${a} ${b} ${shared.length}`);
          }
        expect(ties({}, given)).toEqual(expected);
      }),
    );
  });
});

describe('a two-mode network', () => {
  it('has two sorts, and ties between them alone', () => {
    expect(isTwoMode(meetings)).toBe(true);
    expect(isTwoMode({ ...meetings, target: Uint32Array.of(1, 4, 5, 5, 5, 6) })).toBe(false);
    expect(isTwoMode({ ...meetings, sort: meetings.sort.map((_, v) => String(v % 3)) })).toBe(false);
  });

  it('says through what two nodes are tied, and which pairs a tie ties', () => {
    const through = (...pairs: [number, number][]) =>
      tiesBehind(
        meetings,
        pairs.map(([source, target]) => ({ source, target })),
      ).map(({ source, target }) => [source, target]);
    expect(through([0, 1])).toEqual([
      [0, 4],
      [1, 4],
      [0, 5],
      [1, 5],
    ]);
    expect(through([0, 2], [2, 3])).toEqual([
      [0, 5],
      [2, 5],
    ]);
    expect(tiesThrough(meetings, [{ source: 0, target: 5 }], (v) => v < 4)).toEqual([
      [0, 1],
      [0, 2],
    ]);
  });
});
